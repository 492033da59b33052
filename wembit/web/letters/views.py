"""The page of the letter, and the one on which whoever reads mail there says yes."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.web.responses import again

from .actions.keep_letter import agree, stop_letter, wish_for_letter
from .forms import LetterForm
from .mailing import is_to_terminal
from .models import WEEKDAYS
from .queries import letter_of
from .tokens import letter_by
from .weekly import written

if TYPE_CHECKING:
    from django.http import HttpRequest, HttpResponse

    from wembit.web.request import Request


def _context(request: Request) -> dict:
    letter = letter_of(request.member)
    return {
        "letter": letter,
        "on": WEEKDAYS[letter.weekday] if letter else "",
        "weekdays": list(enumerate(WEEKDAYS)),
        "to_terminal": is_to_terminal(),
        "written": written(request.studio, request.build_absolute_uri("/").rstrip("/")),
    }


@require_GET
def home(request: Request) -> HttpResponse:
    """What the letter would say now, and where it goes."""
    return render(request, "letters/letters.html", _context(request))


@require_POST
def keep(request: Request) -> HttpResponse:
    """A letter a week, to an address that says yes first."""
    house = request.build_absolute_uri("/").rstrip("/")
    letter, faults = LetterForm(request).tried(
        lambda given: wish_for_letter(request.member, given["address"], int(given["weekday"]), house)
    )
    if faults:
        return again(request, "letters/letters.html", _context(request), faults)
    if not letter.agreed:
        messages.success(request, f"A mail to {letter.address} asks for a yes. The first letter comes after that.")
    return redirect("letters:home", studio=request.studio.slug)


@require_POST
def stop(request: Request) -> HttpResponse:
    """No letter any more."""
    stop_letter(request.member)
    return redirect("letters:home", studio=request.studio.slug)


@require_http_methods(["GET", "POST"])
def agreed(request: HttpRequest, token: str) -> HttpResponse:
    """Whoever has the link says yes; no session is asked for."""
    letter = letter_by(token)
    if letter is None:
        raise Http404
    if request.method == "POST":
        agree(letter.pk)
        letter.agreed = True
    return render(request, "letters/agree.html", {"letter": letter, "on": WEEKDAYS[letter.weekday]})
