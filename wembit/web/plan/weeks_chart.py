"""The bench by weeks, drawn: a column of what is planned, a line at the hours there are."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from wembit.core.scheduling.plan import Load
from wembit.web import numbers

HIGH_PX, WEEK_PX, FOOT_Y = 88.0, 96.0, 100.0  # of the fullest week, of a week, where the columns stand
WORDS_PX = 36.0  # beneath them
WEEKS_SHOWN = 12
A_LITTLE_MIN = 3.0  # over the hours that nobody sees


@dataclass(frozen=True)
class Week:
    """A week's column, in px: how high what is planned stands, and the line of the hours there are; both in hours, told."""

    monday: dt.date
    x: float
    high: float
    line_y: float
    hours: str
    there: str
    is_over: bool

    @property
    def top(self) -> float:
        return round(FOOT_Y - self.high, 1)


@dataclass(frozen=True)
class WeeksChart:
    """The first weeks, and the size of their drawing in px."""

    weeks: list[Week]

    @property
    def width(self) -> float:
        return WEEK_PX * len(self.weeks)

    @property
    def height(self) -> float:
        return FOOT_Y + WORDS_PX


def weeks_chart(load: Sequence[Load], mark: str) -> WeeksChart:
    """`mark`: the decimal mark of the studio."""
    shown = load[:WEEKS_SHOWN]
    most = max((max(week.minutes, week.capacity_min) for week in shown), default=0.0) or 1.0

    def px(minutes: float) -> float:
        return round(HIGH_PX * minutes / most, 1)

    def told(minutes: float) -> str:
        return numbers.plain(minutes / 60, 1, mark)

    return WeeksChart(
        [
            Week(
                week.week,
                WEEK_PX * at,
                px(week.minutes),
                round(FOOT_Y - px(week.capacity_min), 1),
                told(week.minutes),
                told(week.capacity_min),
                week.minutes > week.capacity_min + A_LITTLE_MIN,
            )
            for at, week in enumerate(shown)
        ]
    )
