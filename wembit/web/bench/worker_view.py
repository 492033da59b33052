"""The keeper of the bench's pages, a script of the browser: at the bench's own address, since it keeps what lies below it."""

from __future__ import annotations

from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING

from django.http import HttpResponse
from django.views.decorators.http import require_GET

if TYPE_CHECKING:
    from wembit.web.request import Request


@cache
def _script() -> str:
    return (Path(__file__).parent / "worker.js").read_text()


@require_GET
def worker(request: Request) -> HttpResponse:
    """The script, asked for anew each time."""
    return HttpResponse(_script(), content_type="text/javascript; charset=utf-8", headers={"Cache-Control": "no-cache"})
