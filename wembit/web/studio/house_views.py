"""Today, members, settings, and whose hand holds the tablet."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import TYPE_CHECKING

from django.contrib import messages
from django.http import FileResponse, Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.launch.backups import backup
from wembit.launch.cluster import Trouble
from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.responses import again, local_path, refused, tried
from wembit.web.studio.actions.change_member import change_role, remove_member
from wembit.web.studio.actions.change_password import change_password
from wembit.web.studio.actions.make_link import make_join_link, make_password_link, withdraw_link
from wembit.web.studio.actions.set_up import set_up, show_pinch

from .forms import NewPasswordForm, PinchForm, RoleForm, SettingsForm, SignInForm, SureForm, choices_of
from .models import OWNER, ROLES, Member, User, time_zones
from .queries import is_alone, members, open_links, studios_of
from .session_views import hold_again
from .shared_tablet import IN_HAND, keep_hand
from .sign_in_views import WRONG, signed_in

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


@require_GET
def house(request: Request) -> HttpResponse:
    """Members and settings of the studio."""
    return render(request, "studio/house.html", _house(request))


def _house(request: Request) -> dict:
    return {
        "members": members(request.studio),
        "roles": ROLES,
        "zones": [(zone, zone) for zone in time_zones() if "/" in zone or zone == "UTC"],
        "marks": choices_of("decimal_mark"),
        "weights": choices_of("weight_unit"),
        "lengths": choices_of("length_unit"),
        "my_studios": studios_of(request.member.user),
        "links": open_links(request.studio) if request.member.role == OWNER else [],
        "alone": is_alone(request.studio),
    }


@require_POST
def keep_settings(request: Request) -> HttpResponse:
    _, faults = SettingsForm(request).tried(lambda given: set_up(request.member, **given))
    if faults:
        return again(request, "studio/house.html", _house(request), faults)
    messages.success(request, "Kept.")
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def keep_pinch(request: Request) -> HttpResponse:
    _, faults = PinchForm(request).tried(
        lambda given: show_pinch(request.member, given["ten"], keys_on=given["keys_on"])
    )
    if faults:
        return again(request, "studio/house.html", _house(request), faults)
    messages.success(request, "Kept.")
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def invite(request: Request) -> HttpResponse:
    token, faults = RoleForm(request).tried(lambda given: make_join_link(request.member, given["role"]))
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
    _, faults = RoleForm(request).tried(lambda given: change_role(request.member, member_id, given["role"]))
    if faults:
        return again(request, "studio/house.html", _house(request), {"": next(iter(faults.values()))})
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def remove(request: Request, member_id: UUID) -> HttpResponse:
    """Let a member go: asked once more, since it cannot be taken back."""
    form = SureForm(request)
    form.is_valid()
    _, faults = tried(lambda: remove_member(request.member, member_id, sure=form.cleaned_data["sure"]))
    if "sure" in faults:
        return again(request, "studio/house.html", _house(request) | {"asked": member_id}, {"": faults["sure"]})
    if faults:
        return again(request, "studio/house.html", _house(request), {"": next(iter(faults.values()))})
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def withdraw(request: Request, link_id: UUID) -> HttpResponse:
    withdraw_link(request.member, link_id)
    messages.success(request, "That link lets nobody in any more.")
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def password(request: Request) -> HttpResponse:
    """The member in hand chooses another password; her other sessions end."""
    user, faults = NewPasswordForm(request).tried(
        lambda given: change_password(request.member.user, given["old"], given["new"], request)
    )
    if faults:
        return again(request, "studio/house.html", _house(request), faults)
    hold_again(request, user)
    messages.success(request, "Your new password holds. Other devices sign in anew.")
    return redirect("studio:house", studio=request.studio.slug)


@require_POST
def backup_now(request: Request) -> HttpResponse | FileResponse:
    """The whole house as one file, for the owner of the only studio in it."""
    request.member.must_be(OWNER)
    if not is_alone(request.studio):
        refused(request, {"": "Other studios are in this house: whoever runs it makes its backups, ./start --backup."})
        return redirect("studio:house", studio=request.studio.slug)
    with tempfile.TemporaryDirectory(prefix="wembit-") as folder:
        path = Path(folder) / "house.tar"
        try:
            backup(path)
        except Trouble as trouble:
            refused(request, {"": f"No backup was made: {trouble}"})
            return redirect("studio:house", studio=request.studio.slug)
        file = path.open("rb")  # it stays readable until it is sent, though its name goes with the folder
    name = f"wembit-{clock.today(request.studio):%Y-%m-%d}.tar"
    return FileResponse(file, as_attachment=True, filename=name, content_type="application/x-tar")


@require_POST
def hand(request: Request, member_id: UUID) -> HttpResponse:
    """Give the tablet to a member who has signed in on it."""
    other = next((member for member in request.members_here if member.pk == member_id), None)
    if other is None:
        raise Http404
    request.session[IN_HAND] = str(other.user_id)
    return redirect(local_path(request.META.get("HTTP_REFERER", ""), request))


@require_http_methods(["GET", "POST"])
def second_hand(request: Request) -> HttpResponse:
    """A second maker signs in on this tablet once, so that it can change hands with one touch."""
    if request.method == "GET":
        return render(request, "studio/second_hand.html")
    user, faults = SignInForm(request).tried(lambda given: _of_this_studio(request, signed_in(request, given)))
    if faults:
        return again(request, "studio/second_hand.html", {}, faults)
    keep_hand(request, user)
    return redirect("today", studio=request.studio.slug)


def _of_this_studio(request: Request, user: User) -> User:
    if not Member.objects.of(request.studio).filter(user=user).exists():
        raise Refusal(WRONG, "password")
    return user
