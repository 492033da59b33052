"""The studio's days for a calendar: a secret address a member, and the page on which it is made and taken back."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.core.icalendar import calendar
from wembit.web import clock
from wembit.web.studio.models import hashed

from .actions.keep_feed import drop_feed, make_feed
from .dates import days_ahead
from .models import Feed

if TYPE_CHECKING:
    from django.http import HttpRequest

    from wembit.web.request import Request

SHOWN = 12  # days


@require_GET
def dates(request: Request) -> HttpResponse:
    """The next days, and whether this member has an address."""
    return render(request, "restock/dates.html", _context(request))


@require_POST
def new_feed(request: Request) -> HttpResponse:
    """A new address, shown this once."""
    token = make_feed(request.member)
    address = request.build_absolute_uri(f"/days/{token}.ics")
    return render(request, "restock/dates.html", {**_context(request), "address": address})


@require_POST
def no_feed(request: Request) -> HttpResponse:
    drop_feed(request.member)
    return redirect("restock:dates", studio=request.studio.slug)


def _context(request: Request) -> dict:
    feed = Feed.objects.of(request.studio).filter(member=request.member).first()
    today = clock.today(request.studio)
    ahead = [day for day in days_ahead(request.studio) if day.date >= today]
    return {"feed": feed, "ahead": ahead[:SHOWN], "more": max(0, len(ahead) - SHOWN)}


@require_GET
def feed(request: HttpRequest, token: str) -> HttpResponse:
    """The days as a calendar file, to whoever knows the address; no session is asked for."""
    found = Feed.objects.filter(token_hash=hashed(token)).select_related("studio").first()
    if found is None:
        raise Http404
    text = calendar(found.studio.name, days_ahead(found.studio), clock.now())
    answer = HttpResponse(text, content_type="text/calendar; charset=utf-8")
    answer["Content-Disposition"] = 'inline; filename="days.ics"'
    answer["Cache-Control"] = "private, max-age=300"
    return answer
