"""Whose studio an address belongs to, and which maker has the tablet in hand."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.contrib.auth.views import redirect_to_login
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.urls import Resolver404, resolve
from django_htmx.http import trigger_client_event

from wembit.web import clock
from wembit.web.deed_words import words_of
from wembit.web.moment import one_moment
from wembit.web.responses import local_path
from wembit.web.row_deeds import WATCHED, Pressed, changes, name_of, one_at_a_time, told
from wembit.web.studio.deeds import keep_deed
from wembit.web.studio.models import Deed
from wembit.web.studio.shared_tablet import member_in_hand

if TYPE_CHECKING:
    from wembit.web.request import Request
    from wembit.web.studio.models import Member


def _name(request: Request) -> str:
    return request.resolver_match.view_name if request.resolver_match else ""


class StudioMiddleware:
    """Turns `/s/<studio>/…` into `request.studio` and `request.member`; 404 for those who do not belong to it."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: Request) -> HttpResponse:
        request.studio = request.member = None  # type: ignore[assignment] # until an address names one
        response = self.get_response(request)
        asked = request.method in ("GET", "HEAD") or getattr(request, "saved_nothing", False)
        refused = response.status_code >= 400  # and has changed nothing
        if request.studio is not None and not asked and not refused:
            request.studio.pressed()
            if not self.is_watched(request):
                self.tell(request)
            if request.htmx:
                trigger_client_event(response, "pressed")
        opened = request.method == "GET" and request.headers.get("Sec-Fetch-Mode") == "navigate"
        if request.studio is not None and opened:
            taken_back = request.session.pop("taken_back", "") if "taken_back" in request.session else ""
            if response.status_code == 404 and taken_back:  # what that page showed was taken back just now
                messages.success(request, taken_back)
                response = self.where_it_was(request)
            elif response.status_code == 405:
                response = self.where_it_was(request)
        response.headers.setdefault("Cache-Control", "no-store")
        vary = response.headers.get("Vary", "")
        response.headers["Vary"] = f"{vary}, HX-Request" if vary else "HX-Request"
        return response

    def is_watched(self, request: Request) -> bool:
        """Whether it is a press whose rows are read before and after."""
        return request.method == "POST" and _name(request) in WATCHED

    def watch(self, request: Request, press: Pressed, do: Callable[[], HttpResponse]) -> HttpResponse:
        """A watched press and its deed, in one transaction: neither is there without the other. In a studio one at a time, so
        that no deed holds what another hand did meanwhile.
        """
        watched = WATCHED[_name(request)]
        with transaction.atomic():
            one_at_a_time(request.studio)
            before = told(watched.rows(press))
            response = do()
            differ = changes(before, told(watched.rows(press))) if response.status_code < 400 else []
            if differ and not getattr(request, "saved_nothing", False):
                words = watched.words.format(name_of(differ, watched.of))
                keep_deed(request.member, words, Deed.ROWS, rows=differ)
        return response

    def tell(self, request: Request) -> None:
        """Write into the journal what was done, unless the action has."""
        if (words := words_of(_name(request))) and not request.member.has_told:
            keep_deed(request.member, words)

    def process_view(
        self, request: Request, view: Callable[..., HttpResponse], arguments: tuple, named: dict[str, Any]
    ) -> HttpResponse | None:
        slug = named.pop("studio", None)
        if slug is None:
            return None
        if not request.user.is_authenticated:
            return self.to_the_door(request)
        if request.method in ("GET", "HEAD"):
            with one_moment():
                self.enter(request, slug)
                return view(request, *arguments, **named)
        member = self.enter(request, slug)
        shown = request.headers.get("X-Hand") or (request.POST.get("hand") if request.method == "POST" else "")
        if request.method == "POST" and shown and shown != str(member.pk):
            return self.other_hand(request)
        if self.is_watched(request):
            press = Pressed(member, named, request.POST, clock.now())
            return self.watch(request, press, lambda: view(request, *arguments, **named))
        return None

    def to_the_door(self, request: Request) -> HttpResponse:
        """To where one signs in, and from there on to the address."""
        if request.htmx:
            here = request.htmx.current_url_abs_path or "/"
            return HttpResponse(status=401, headers={"HX-Redirect": f"/sign-in/?next={here}"})
        return redirect_to_login(request.get_full_path())

    def enter(self, request: Request, slug: str) -> Member:
        """The request is of that studio, by the hand that holds the tablet. Raises `Http404` for those who are not of it."""
        member = member_in_hand(request, slug)
        if member is None:
            raise Http404
        request.studio, request.member = member.studio, member
        return member

    def other_hand(self, request: Request) -> HttpResponse:
        """The tablet has gone to another hand since the page was drawn: nothing is booked under the wrong name."""
        words = f"The tablet is in {request.member}’s hand by now. Look, and press again."
        request.saved_nothing = True
        if request.htmx:
            return HttpResponse(words, status=409, content_type="text/plain; charset=utf-8")
        messages.warning(request, words)
        return redirect(local_path(request.headers.get("Referer", ""), request))

    def where_it_was(self, request: Request) -> HttpResponse:
        """The nearest page above an address at which there is none."""
        path = request.path.rstrip("/")
        while (path := path.rpartition("/")[0]) and path.count("/") > 2:
            with suppress(Resolver404):
                resolve(f"{path}/")
                return redirect(f"{path}/")
        return redirect(f"/s/{request.studio.slug}/")
