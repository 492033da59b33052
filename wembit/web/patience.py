"""A page that is asked for while the database comes back waits for it, instead of failing."""

from __future__ import annotations

import sys
from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from django.core.signals import got_request_exception
from django.db import InterfaceError, OperationalError, connection
from django.dispatch import receiver

if TYPE_CHECKING:
    from django.http import HttpRequest, HttpResponse

TRIES = 3  # each waits as long as the pool does for a connection


@receiver(got_request_exception)
def remember(request: HttpRequest | None = None, **_: Any) -> None:
    """Whether it was the database that a request failed on."""
    if request is not None:
        request.lost_database = isinstance(sys.exc_info()[1], OperationalError | InterfaceError)  # type: ignore[attr-defined]


class PatienceMiddleware:
    """The first of all: asks once more for a page that failed on a lost connection. What changes something is left alone,
    since it may have been done.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        for _ in range(TRIES):
            request.lost_database = False  # type: ignore[attr-defined]
            response = self.get_response(request)
            if request.method not in ("GET", "HEAD") or not request.lost_database:  # type: ignore[attr-defined]
                return response
            connection.close()
        return response
