"""How a view answers a form: faults beside their fields, what was entered kept."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from .errors import Refusal

if TYPE_CHECKING:
    from wembit.web.request import Request


def tried(do: Callable[[], Any]) -> tuple[Any, dict[str, str]]:
    """Run an action: its result and no faults, or None and what the maker has to change."""
    try:
        return do(), {}
    except Refusal as trouble:
        return None, {trouble.field or "": trouble.message}


def refused(request: Request, faults: dict[str, str]) -> None:
    """Say on the next page why a press was not done; it has changed nothing."""
    messages.warning(request, next(iter(faults.values())))
    request.saved_nothing = True


def again(request: HttpRequest, template: str, context: dict, faults: dict[str, str]) -> HttpResponse:
    """The same page with the faults and everything that was entered."""
    return render(request, template, {**context, "faults": faults, "kept": request.POST}, status=422)


def page(request: HttpRequest, whole: str, fragment: str, context: dict, status: int = 200) -> HttpResponse:
    """The fragment for htmx, else the whole page that includes it."""
    return render(request, fragment if getattr(request, "htmx", False) else whole, context, status=status)


def local_path(address: str, request: Request) -> str:
    """The path of an address of this host, else the studio's first page."""
    host = request.get_host()
    _, marker, path = address.partition(f"//{host}/")
    return f"/{path}" if marker else f"/s/{request.studio.slug}/"
