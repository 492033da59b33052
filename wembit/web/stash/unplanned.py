"""What goes off the shelf for nothing that is planned: the habit of each item, by the weeks that have been."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from functools import lru_cache
from typing import TYPE_CHECKING
from uuid import UUID

from django.db.models import Min, Q, Sum
from django.db.models.functions import TruncDate

from wembit.core.stock.intermittent import WeeklyUse, weekly_use
from wembit.web import clock
from wembit.web.numbers import PIECES

from .models import (
    BLENDED_IN,
    BLENDED_OUT,
    DISCARDED,
    MIXED,
    OPENING,
    PULLED,
    RECEIVED,
    RETURNED,
    SOLD,
    TRIMMED,
    Movement,
    standing,
)

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

USED = [PULLED, RETURNED, SOLD, BLENDED_OUT]
CAME = [OPENING, RECEIVED, TRIMMED, BLENDED_IN]
WEEKS = 120  # that are looked back


def habits(studio: Studio, item_ids: Iterable[UUID] | None = None) -> dict[UUID, WeeklyUse]:
    """What a week uses of each item beside all plans, and by which forecast. Two queries."""
    used = used_by_week(studio, item_ids)
    return {item: found for item, weeks in used.items() if (found := _weekly_use(weeks)).weekly_g > 0}


def used_by_week(studio: Studio, item_ids: Iterable[UUID] | None = None) -> dict[UUID, tuple[float, ...]]:
    """What each week used of each item beside all plans, the oldest first; of those of which something was used at all, but of
    what was carded here, which nobody sells. What is thrown away is used up where it is counted in pieces, as needles that
    break are; moths in a bag of wool are no habit. Two queries.
    """
    today = clock.today(studio)
    rows = (
        Movement.objects.of(studio)
        .filter(standing("entry"), need=None, entry__reverses=None, lot__waste=False)
        .filter(Q(kind__in=USED) | Q(kind=DISCARDED, lot__item__unit=PIECES))
        .exclude(lot__item__breed=MIXED)
    )
    if item_ids is not None:
        rows = rows.filter(lot__item__in=list(item_ids))
    zone = clock.zone(studio)
    sums = rows.order_by().values_list("lot__item", TruncDate("entry__happened_at", tzinfo=zone))
    weeks: dict[UUID, dict[int, float]] = {}
    for item, day, amount in sums.annotate(total=Sum("amount")):
        ago = (today - day).days // 7
        if 0 <= ago < WEEKS:
            mine = weeks.setdefault(item, {})
            mine[ago] = mine.get(ago, 0.0) - float(amount)
    if not weeks:
        return {}
    since = _since(studio, item_ids)
    in_book = {item: 1 + (today - since.get(item, today)).days // 7 for item in weeks}
    return {item: _series(used, min(WEEKS, in_book[item])) for item, used in weeks.items()}


def _since(studio: Studio, item_ids: Iterable[UUID] | None) -> dict[UUID, dt.date]:
    """The day from which each of these items, or of all, is in the book: that on which the first bag of it came."""
    came = Movement.objects.of(studio).filter(kind__in=CAME, need=None).order_by()
    if item_ids is not None:
        came = came.filter(lot__item__in=list(item_ids))
    firsts = came.values_list("lot__item").annotate(first=Min("entry__happened_at"))
    return {item: first.astimezone(clock.zone(studio)).date() for item, first in firsts}


def _series(used: dict[int, float], weeks: int) -> tuple[float, ...]:
    """What each week used, the oldest first; what came back in a week was not used."""
    return tuple(max(0.0, round(used.get(ago, 0.0), 3)) for ago in range(max(weeks, max(used) + 1) - 1, -1, -1))


@lru_cache(maxsize=4096)
def _weekly_use(used: tuple[float, ...]) -> WeeklyUse:
    return weekly_use(used)
