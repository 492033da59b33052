"""Today, members, settings, and whose hand holds the tablet."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django import forms
from django.contrib import messages
from django.contrib.auth import authenticate
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.web.fields import weight_field
from wembit.web.responses import again, faults_of, local_path, tried
from wembit.web.studio.actions.change_member import change_role, remove_member
from wembit.web.studio.actions.make_link import make_join_link, make_password_link
from wembit.web.studio.actions.set_up import set_up, show_pinch

from .models import ROLES, Member, Studio, time_zones
from .queries import members, studios_of
from .shared_tablet import IN_HAND, keep_hand
from .sign_in_views import WRONG, SignInForm

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


class StudioForm(forms.ModelForm):
    currency = forms.RegexField("^[A-Za-z]{3}$", error_messages={"invalid": "Write three letters, like EUR."})

    class Meta:
        model = Studio
        fields = ["name", "timezone", "currency", "decimal_mark", "weight_unit", "length_unit"]


@require_GET
def house(request: Request) -> HttpResponse:
    """Members and settings of the studio."""
    return render(request, "studio/house.html", _house(request))


def _house(request: Request) -> dict:
    return {
        "members": members(request.studio),
        "roles": ROLES,
        "zones": [(zone, zone) for zone in time_zones() if "/" in zone or zone == "UTC"],
        "marks": Studio._meta.get_field("decimal_mark").choices,
        "weights": Studio._meta.get_field("weight_unit").choices,
        "lengths": Studio._meta.get_field("length_unit").choices,
        "my_studios": studios_of(request.member.user),
    }


@require_POST
def keep_settings(request: Request) -> HttpResponse:
    form = StudioForm(request.POST)
    if not form.is_valid():
        return again(request, "studio/house.html", _house(request), faults_of(form))
    set_up(request.member, **form.cleaned_data)
    messages.success(request, "Kept.")
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def keep_pinch(request: Request) -> HttpResponse:
    field = weight_field(request.member, required=False, most=50)
    try:
        ten = field.clean(request.POST.get("ten", ""))
    except forms.ValidationError as fault:
        return again(request, "studio/house.html", _house(request), {"ten": fault.messages[0]})
    show_pinch(request.member, ten, keys_on=bool(request.POST.get("keys_on")))
    messages.success(request, "Kept.")
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def invite(request: Request) -> HttpResponse:
    token, faults = tried(lambda: make_join_link(request.member, request.POST.get("role", "")))
    if faults:
        return again(request, "studio/house.html", _house(request), faults)
    return render(request, "studio/house.html", {**_house(request), "link": _address(request, token), "for": "join"})


@require_POST
def new_password(request: Request, member_id: UUID) -> HttpResponse:
    token, faults = tried(lambda: make_password_link(request.member, member_id))
    if faults:
        return again(request, "studio/house.html", _house(request), faults)
    return render(
        request, "studio/house.html", {**_house(request), "link": _address(request, token), "for": "password"}
    )


def _address(request: Request, token: str) -> str:
    return request.build_absolute_uri(f"/link/{token}/")


@require_POST
def role(request: Request, member_id: UUID) -> HttpResponse:
    _, faults = tried(lambda: change_role(request.member, member_id, request.POST.get("role", "")))
    if faults:
        return again(request, "studio/house.html", _house(request), {"": next(iter(faults.values()))})
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def remove(request: Request, member_id: UUID) -> HttpResponse:
    _, faults = tried(lambda: remove_member(request.member, member_id))
    if faults:
        return again(request, "studio/house.html", _house(request), {"": next(iter(faults.values()))})
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def hand(request: Request, member_id: UUID) -> HttpResponse:
    """Give the tablet to a member who has signed in on it."""
    other = next((each for each in request.members_here if each.pk == member_id), None)
    if other is None:
        raise Http404
    request.session[IN_HAND] = str(other.user_id)
    return redirect(local_path(request.META.get("HTTP_REFERER", ""), request))


@require_http_methods(["GET", "POST"])
def second_hand(request: Request) -> HttpResponse:
    """A second maker signs in on this tablet once, so that it can change hands with one touch."""
    if request.method == "GET":
        return render(request, "studio/second_hand.html")
    form = SignInForm(request.POST)
    if not form.is_valid():
        return again(request, "studio/second_hand.html", {}, faults_of(form))
    user = authenticate(request, username=form.cleaned_data["username"].lower(), password=form.cleaned_data["password"])
    if user is None or not Member.objects.of(request.studio).filter(user=user).exists():
        return again(request, "studio/second_hand.html", {}, {"password": WRONG})
    keep_hand(request, user)
    return redirect("today", studio=request.studio.slug)
