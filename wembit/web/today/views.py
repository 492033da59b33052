"""Today."""

from __future__ import annotations

import datetime as dt
from typing import TYPE_CHECKING

from django.shortcuts import render
from django.views.decorators.http import require_GET

from wembit.web import clock

from .things import things_now

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request


@require_GET
def today(request: Request) -> HttpResponse:
    """The page behind the studio's name: the figure in hand and the next fortnight."""
    things, first = things_now(request.studio), clock.today(request.studio)
    dates = [first + dt.timedelta(day) for day in things["days"]]
    return render(request, "today/today.html", {**things, "dates": dates})
