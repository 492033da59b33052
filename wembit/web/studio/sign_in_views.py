"""The door: signing in and out, the first visit, links."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.contrib.auth import authenticate, login, logout
from django.db import transaction
from django.http import Http404
from django.shortcuts import redirect, render
from django.utils.http import url_has_allowed_host_and_scheme
from django.views.decorators.http import require_http_methods, require_POST

from wembit.web.errors import Refusal
from wembit.web.responses import again
from wembit.web.studio.actions.follow_link import follow_link, new_user
from wembit.web.studio.actions.found_studio import found_studio

from .forms import FirstForm, LinkForm, SignInForm
from .models import Studio, User
from .queries import any_studio, open_link, studios_of
from .shared_tablet import keep_hand

if TYPE_CHECKING:
    from django.http import HttpRequest, HttpResponse

WRONG = "That name and password do not go together. Try again; after eight times wait a quarter of an hour."


def door(request: HttpRequest) -> HttpResponse:
    """To the studio, to the sign-in, or to the first visit."""
    if not any_studio():
        return redirect("first_visit")
    if not request.user.is_authenticated:
        return redirect("sign_in")
    studios = studios_of(request.user)
    if not studios:
        return render(request, "studio/no_studio.html")
    return redirect("today", studio=studios[0].slug)


@require_http_methods(["GET", "POST"])
def sign_in(request: HttpRequest) -> HttpResponse:
    if request.method == "GET":
        return render(request, "studio/sign_in.html", {"next": request.GET.get("next", "")})
    form = SignInForm(request)
    user, faults = form.tried(lambda given: signed_in(request, given))
    target = form.cleaned_data.get("next", "")
    if faults:
        return again(request, "studio/sign_in.html", {"next": target}, faults)
    login(request, user)
    keep_hand(request, user)
    safe = url_has_allowed_host_and_scheme(target, {request.get_host()}, require_https=request.is_secure())
    return redirect(target if target and safe else "door")


def signed_in(request: HttpRequest, given: dict[str, Any]) -> User:
    """Whose name and password these are. Raises `Refusal` when they go to nobody."""
    user = authenticate(request, username=given["username"].lower(), password=given["password"])
    if not isinstance(user, User):
        raise Refusal(WRONG, "password")
    return user


@require_POST
def sign_out(request: HttpRequest) -> HttpResponse:
    logout(request)
    return redirect("sign_in")


@require_http_methods(["GET", "POST"])
def first_visit(request: HttpRequest) -> HttpResponse:
    """The first visitor makes the studio and is its owner; afterwards this page is not there."""
    if any_studio():
        raise Http404
    if request.method == "GET":
        return render(request, "studio/first_visit.html")
    user, faults = FirstForm(request).tried(_found)
    if faults:
        return again(request, "studio/first_visit.html", {}, faults)
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    keep_hand(request, user)
    return redirect("door")


@transaction.atomic
def _found(given: dict) -> Any:
    user = new_user(given["username"], given["name"], given["password"])
    found_studio(given["studio_name"], user, timezone=given["timezone"], currency=given["currency"].upper())
    return user


@require_http_methods(["GET", "POST"])
def use_link(request: HttpRequest, token: str) -> HttpResponse:
    """Join a studio or choose a new password."""
    link = open_link(token)
    if link is None:
        return render(request, "studio/link_gone.html", status=404)
    context = {"link": link}
    if request.method == "GET":
        return render(request, "studio/link.html", context)
    joining = request.user if link.purpose == link.JOIN and request.user.is_authenticated else None
    user, faults = LinkForm(request).tried(
        lambda given: follow_link(
            link, username=given["username"], name=given["name"], password=given["password"], user=joining
        )
    )
    if faults:
        return again(request, "studio/link.html", context, faults)
    if joining is None:
        login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    keep_hand(request, user)
    messages.success(request, f"Welcome to {link.studio.name}.")
    return redirect("today", studio=Studio.objects.get(pk=link.studio_id).slug)
