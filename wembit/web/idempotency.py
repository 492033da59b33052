"""The press of a button, as a form or a queue on the device brings it."""

from __future__ import annotations

import datetime as dt
from typing import TYPE_CHECKING

from django.utils.dateparse import parse_datetime

from wembit.web.stash.ledger import Press

from . import clock
from .errors import Refusal

if TYPE_CHECKING:
    from wembit.web.request import Request


def press_of(request: Request) -> Press:
    """Key and time of a POST. Raises `Refusal` for a time that cannot be read."""
    text = request.POST.get("happened_at", "").strip()
    if not text:
        return Press(request.POST.get("key", ""))
    try:
        moment = parse_datetime(text)
        if moment is None and (date := dt.date.fromisoformat(text)):
            moment = clock.at(request.studio, date)
    except ValueError:
        moment = None
    if moment is None:
        raise Refusal("That time cannot be read. Choose a day that has been.", "happened_at")
    if moment.tzinfo is None:
        moment = moment.replace(tzinfo=clock.zone(request.studio))
    return Press(request.POST.get("key", ""), moment)
