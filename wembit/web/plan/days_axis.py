"""Days by width; long stretches in which nothing begins and nothing is due are folded to a crease."""

from __future__ import annotations

import datetime as dt
from bisect import bisect_right
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

DAY_PX, LEAST_DAY_PX, WIDE_PX = 17.0, 4.0, 860.0  # of a day; so wide may the open days become before they are narrowed
KEPT_AFTER, KEPT_BEFORE, FOLDED_FROM = 14, 7, 28  # days that stay open after and before a mark; of a fold at the least
FOLD_PX = 78.0  # its words fit on it


@dataclass(frozen=True)
class Stretch:
    """Days from `first` to before `end`, from `x` px on; folded ones are all one crease."""

    first: dt.date
    end: dt.date
    x: float
    day_px: float
    folded: bool

    @property
    def days(self) -> int:
        return (self.end - self.first).days

    @property
    def width(self) -> float:
        return self.days * self.day_px


@dataclass(frozen=True)
class DaysAxis:
    """The stretches one after the other, without a gap."""

    stretches: list[Stretch]

    def x(self, date: dt.date) -> float:
        """Where a day begins, in px; days before the first one begin there."""
        at = bisect_right([each.first for each in self.stretches], date) - 1
        stretch = self.stretches[max(at, 0)]
        return stretch.x + max(0, (date - stretch.first).days) * stretch.day_px

    @property
    def day_px(self) -> float:
        """How wide an open day is."""
        return next(each.day_px for each in self.stretches if not each.folded)

    @property
    def folds(self) -> list[Stretch]:
        return [each for each in self.stretches if each.folded]

    @property
    def mondays(self) -> list[dt.date]:
        """The first days of the weeks that begin outside the folds."""
        first, last = self.stretches[0].first, self.stretches[-1].end
        first += dt.timedelta(-first.weekday() % 7)
        weeks = (first + dt.timedelta(7 * k) for k in range((last - first).days // 7 + 1))
        return [day for day in weeks if not any(each.first <= day < each.end for each in self.folds)]


def days_axis(first: dt.date, last: dt.date, marks: Iterable[dt.date], left: float, wide: float = WIDE_PX) -> DaysAxis:
    """From `first` to before `last`, from `left` px on; what is around a mark stays open. `wide`: px that they may take."""
    known = sorted({first, last, *(day for day in marks if first < day < last)})
    edges: list[tuple[dt.date, dt.date]] = []
    for one, two in pairwise(known):
        start, end = one + dt.timedelta(KEPT_AFTER), two - dt.timedelta(KEPT_BEFORE)
        start += dt.timedelta(-start.weekday() % 7)
        end -= dt.timedelta(end.weekday())
        if (end - start).days >= FOLDED_FROM:
            edges.append((start, end))
    open_days = (last - first).days - sum((end - start).days for start, end in edges)
    room = wide - FOLD_PX * len(edges)
    day_px = min(DAY_PX, max(LEAST_DAY_PX, room / open_days))
    stretches, x, day = [], left, first
    for start, end in edges:
        stretches.append(Stretch(day, start, x, day_px, folded=False))
        x += stretches[-1].width
        stretches.append(Stretch(start, end, x, FOLD_PX / (end - start).days, folded=True))
        x, day = x + FOLD_PX, end
    return DaysAxis([*stretches, Stretch(day, last, x, day_px, folded=False)])
