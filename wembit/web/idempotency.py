"""The press of a button, as a form or a queue on the device brings it."""

from __future__ import annotations

import datetime as dt
from typing import TYPE_CHECKING

from django.utils.dateparse import parse_datetime

from wembit.web.stash.ledger import Press

from . import clock
from .errors import Refusal
from .fields import TextField
from .forms import PageForm

if TYPE_CHECKING:
    from wembit.web.request import Request
    from wembit.web.studio.models import Studio


class PressForm(PageForm):
    """The key that the page drew into its form, and when it was pressed where that was not now."""

    key = TextField(60)
    happened_at = TextField(40)


def press_of(request: Request) -> Press:
    """Key and time of a POST. Raises `Refusal` for a key that no page has drawn or a time that cannot be read."""
    form = PressForm(request)
    if not form.is_valid():
        raise Refusal("That cannot be kept as it came. Load the page anew and press again.")
    key, text = form.cleaned_data["key"], form.cleaned_data["happened_at"]
    return Press(key, moment_of(text, request.studio) if text else None)


def moment_of(text: str, studio: Studio) -> dt.datetime:
    """A day, or a day and a time, of the studio. Raises `Refusal` for a text that is neither."""
    try:
        moment = parse_datetime(text)
        if moment is None and (date := dt.date.fromisoformat(text)):
            moment = clock.at(studio, date)
    except ValueError:
        moment = None
    if moment is None:
        raise Refusal("That time cannot be read. Choose a day that has been.", "happened_at")
    return moment if moment.tzinfo else moment.replace(tzinfo=clock.zone(studio))
