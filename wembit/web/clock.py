"""Today and now, in one place, so that tests, pictures and the fast-forward can set them."""

from __future__ import annotations

import datetime as dt
import os
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from pathlib import Path
from typing import TYPE_CHECKING
from zoneinfo import ZoneInfo

from django.utils import timezone

from wembit.days_ahead import days_in

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

EARLIEST = dt.datetime(1900, 1, 1, tzinfo=dt.UTC)  # nothing in a studio happened before it
_fixed: ContextVar[dt.datetime | None] = ContextVar("fixed", default=None)


def now() -> dt.datetime:
    """The moment, aware: the one set by `as_of`, else the real one, so many days ahead as WEMBIT_DAYS_AHEAD says and as have
    been passed in the file that WEMBIT_DAYS_FILE names.
    """
    return _fixed.get() or timezone.now() + dt.timedelta(days=_days_ahead())


def _days_ahead() -> int:
    passed = os.environ.get("WEMBIT_DAYS_FILE", "")
    return int(os.environ.get("WEMBIT_DAYS_AHEAD", "0")) + (days_in(Path(passed)) if passed else 0)


@contextmanager
def as_of(moment: dt.datetime) -> Iterator[None]:
    """Within it, now is that moment."""
    token = _fixed.set(moment)
    try:
        yield
    finally:
        _fixed.reset(token)


def zone(studio: Studio) -> ZoneInfo:
    """The studio's time zone."""
    return ZoneInfo(studio.timezone)


def today(studio: Studio) -> dt.date:
    """The date in the studio's time zone."""
    return now().astimezone(zone(studio)).date()


def at(studio: Studio, date: dt.date, hour: int = 12) -> dt.datetime:
    """That hour of that date in the studio's time zone."""
    return dt.datetime.combine(date, dt.time(hour), zone(studio))
