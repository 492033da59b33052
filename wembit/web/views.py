"""What all places share: what a number field understood, finding, undoing, pictures, and pages for what goes wrong."""

from __future__ import annotations

import mimetypes
from pathlib import Path
from typing import TYPE_CHECKING, Any

from django.conf import settings
from django.contrib import messages
from django.contrib.staticfiles.storage import staticfiles_storage
from django.db import connection
from django.http import FileResponse, Http404, HttpResponse, HttpResponseRedirect
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.web.asked import words_in
from wembit.web.fields import hand_of, read
from wembit.web.stash.queries import item_named, lot_named
from wembit.web.studio.deeds import deeds_of_today

from .idempotency import press_of
from .navigation import places
from .responses import local_path, refused, tried
from .search import found
from .taking_back import do_it_again, take_back

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.request import Request


@require_GET
def understood(request: Request) -> HttpResponse:
    """The small line under a number field: what was understood, or what to write instead."""
    name = request.GET.get("name", "")
    text = request.GET.get(name, "")
    measure, unit = request.GET.get("measure", "weight"), request.GET.get("unit", "")
    answer, fault = "", ""
    if text.strip():
        try:
            item, lot = request.GET.get("item", ""), request.GET.get("lot", "")
            hand = hand_of(request.member, item_named(request.studio, item), lot_named(request.studio, lot))
            answer = read(text, measure, unit or request.studio.weight_unit, hand).understood
        except ValueError as trouble:
            fault = str(trouble)
    return render(request, "_understood.html", {"answer": answer, "fault": fault})


@require_GET
def find(request: Request) -> HttpResponse:
    """Anything of the studio by a few letters."""
    words = words_in(request.GET.get("words", ""))
    context = {"words": words, "found": found(request.studio, words)}
    return render(request, "_found.html" if request.htmx else "find.html", context)


@require_GET
def strip(request: Request) -> HttpResponse:
    """The live lines of the strip of places, after a press that replaced only a piece of the page."""
    return render(request, "_strip.html", {"places": places(request, request.studio)})


@require_POST
def undo_last(request: Request) -> HttpResponse:
    """Take this member's last deed of today back, whatever it was; what cannot be taken back here says so."""
    deed, faults = tried(lambda: take_back(request.member, press_of(request)))
    return _answered(request, f"Taken back: {deed.words}." if deed else "", faults)


@require_POST
def do_again(request: Request) -> HttpResponse:
    """Do again what was taken back last, unless something was done since."""
    deed, faults = tried(lambda: do_it_again(request.member))
    return _answered(request, f"Done again: {deed.words}." if deed else "", faults)


@require_GET
def deeds(request: Request) -> HttpResponse:
    """What this member did today."""
    return render(request, "deeds.html", {"deeds": deeds_of_today(request.member)})


@require_POST
def deed_back(request: Request, deed_id: UUID) -> HttpResponse:
    """Take one deed back, while nothing stands on it."""
    deed, faults = tried(lambda: take_back(request.member, press_of(request), deed_id))
    return _answered(request, f"Taken back: {deed.words}." if deed else "", faults)


def _answered(request: Request, words: str, faults: dict[str, str]) -> HttpResponse:
    if faults:
        refused(request, faults)
    else:
        messages.success(request, words)
        request.session["taken_back"] = words  # the page that it came from may be gone
    return HttpResponseRedirect(local_path(request.META.get("HTTP_REFERER", ""), request))


@require_GET
def picture(request: Request, name: str) -> FileResponse:
    """A picture of this studio; those of others are not there."""
    if "\0" in name:
        raise Http404
    path = (Path(settings.MEDIA_ROOT) / str(request.studio.pk) / name).resolve()
    base = (Path(settings.MEDIA_ROOT) / str(request.studio.pk)).resolve()
    if not path.is_relative_to(base) or not path.is_file():
        raise Http404
    kind = mimetypes.guess_type(path.name)[0] or "application/octet-stream"
    response = FileResponse(path.open("rb"), content_type=kind)
    response["Cache-Control"] = "private, max-age=3600"
    response["X-Content-Type-Options"] = "nosniff"
    return response


def health(request: Request) -> HttpResponse:
    with connection.cursor() as cursor:
        cursor.execute("SELECT 1")
    return HttpResponse("ok", content_type="text/plain")


def favicon(request: Request) -> HttpResponse:
    return redirect(staticfiles_storage.url("favicon.svg"))


def forbidden(request: Request, exception: Any = None) -> HttpResponse:
    return render(request, "403.html", {"reason": str(exception or "")}, status=403)


def missing(request: Request, exception: Any = None) -> HttpResponse:
    return render(request, "404.html", status=404)


def broken(request: Request) -> HttpResponse:
    return render(request, "500.html", status=500)
