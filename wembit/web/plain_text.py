"""No text of a request carries a NUL character: nobody types one, and the database takes none."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from wembit.web.request import Request

NUL = "\0"


def without_nul(data: Any) -> Any:
    """The same parameters without NUL characters; the very same object where there is none."""
    if not any(NUL in value for _, values in data.lists() for value in values):
        return data
    clean = data.copy()
    for name, values in data.lists():
        clean.setlist(name, [value.replace(NUL, "") for value in values])
    return clean


class PlainTextMiddleware:
    """Takes NUL characters out of what was asked and entered."""

    def __init__(self, get_response: Any) -> None:
        self.get_response = get_response

    def __call__(self, request: Request) -> Any:
        request.GET = without_nul(request.GET)
        if request.method == "POST":
            request.POST = without_nul(request.POST)
        return self.get_response(request)
