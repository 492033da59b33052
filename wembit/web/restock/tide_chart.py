"""Tide lines: what is left of each wool if the plans hold, falling to the day it runs out."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from wembit.core.stock.forecast import Dated
from wembit.web.plan.days_axis import DaysAxis, days_axis

from .queries import TideLine

WIDTH, HIGHEST, LOWEST = 640.0, 96.0, 12.0  # px of a row; a wool of less is drawn so high all the same
LAST_LABEL_X, LABEL_PX = 600.0, 92.0  # a date further to the right would be cut; how wide one is
FLAG_PX, BENEATH_PX = 24.0, 12.0  # above and under a tide
RULER_PX = 34.0  # the longest


@dataclass(frozen=True)
class Tide:
    """Path data in a box 640 wide: the line falls from what is on hand to zero at `zero_y`; `water` is what is there, `owed`
    what is missing under zero, `band` where it lies eight times in ten. `torn`: there is more than fits at the scale of all.
    """

    line: TideLine
    water: str
    owed: str
    edge: str
    band: str
    zero_y: float
    order_x: float | None
    out_x: float | None
    height: float
    torn: bool

    @property
    def box(self) -> str:
        return f"0 {-FLAG_PX:g} {WIDTH:g} {self.height + FLAG_PX + BENEATH_PX:g}"


@dataclass(frozen=True)
class Days:
    """The days below all tides, from today to before `last`, `wider` times the axis; where the words of weeks stand; of each
    fold in which nothing changes x, width and how many weeks.
    """

    today: dt.date
    last: dt.date
    axis: DaysAxis
    wider: float
    weeks: list[tuple[float, dt.date]]
    folds: list[tuple[float, float, int]]

    def x(self, date: dt.date) -> float:
        """Where a day begins, in px."""
        return round(self.wider * self.axis.x(date), 1)


def scales(lines: Iterable[TideLine], days: Days) -> dict[str, float]:
    """Px of one g, piece or mm, the same for all tides: what runs out within the days fits, the largest of it at full height;
    where nothing does, all fits.
    """
    spans: dict[str, list[tuple[bool, float]]] = {}
    for line in lines:
        spans.setdefault(line.item.unit, []).append((line.outlook.runs_out is not None, _span(line, days)))
    found = {}
    for unit, each in spans.items():
        short = [span for runs_out, span in each if runs_out]
        found[unit] = HIGHEST / max(short or [span for _, span in each])
    return found


def ruler_of(scale: float) -> tuple[float, float]:
    """A round weight in g that is some 20 to 50 px high at this scale, and its height."""
    tens = 10 ** math.floor(math.log10(RULER_PX / scale))
    grams = max((step * tens for step in (1, 2, 5) if step * tens * scale <= RULER_PX), default=tens)
    return grams, round(grams * scale, 1)


def _steps(line: TideLine, days: Days) -> list[Dated]:
    """What is left of it on each of the days on which that changes, before the last that is drawn."""
    return [step for step in line.steps(days.today) if step.date < days.last]


def _span(line: TideLine, days: Days) -> float:
    """From the most to the least there will be of it, or to nothing."""
    grams = [float(line.item.on_hand), *(step.grams for step in _steps(line, days))]
    return max(*grams, 1e-6) - _least(line, days)


def days_of(today: dt.date, changes: Iterable[dt.date]) -> Days:
    """From today to two weeks after the last of the days on which any of all tides changes, 5 weeks at the least; long
    stretches without a change are folded.
    """
    changes = sorted(changes)
    last = max([today + dt.timedelta(35), *(day + dt.timedelta(14) for day in changes[-1:])])
    axis = days_axis(today, last, changes, 0.0)
    days = Days(today, last, axis, WIDTH / axis.x(last), [], [])
    folds = [(days.x(fold.first), round(fold.width * days.wider, 1), round(fold.days / 7)) for fold in axis.folds]
    return replace(days, weeks=_labelled([today, *axis.mondays], days.x, [at for at, _, _ in folds]), folds=folds)


def _labelled(days: Iterable[dt.date], x: Any, taken: Iterable[float]) -> list[tuple[float, dt.date]]:
    """The days whose words have room, none where a fold has its own."""
    found: list[tuple[float, dt.date]] = []
    for day in days:
        at = x(day)
        room = not found or at - found[-1][0] >= LABEL_PX
        if room and at <= LAST_LABEL_X and all(not -LABEL_PX < at - other < LABEL_PX for other in taken):
            found.append((at, day))
    return found


def _border(line: TideLine, date: dt.date) -> tuple[float, float]:
    """How far beneath and above the middle it lies eight times in ten, from that day on."""
    level = next((level for level in line.levels if level.date >= date), line.levels[-1] if line.levels else None)
    return (level.p10 - level.p50, level.p90 - level.p50) if level else (0.0, 0.0)


def _least(line: TideLine, days: Days) -> float:
    """The least there will be of it, of what runs out one time in ten; not above nothing."""
    low = [level.p10 for level in line.levels if level.date <= days.last] if line.outlook.runs_out else []
    return min(0.0, *(step.grams for step in _steps(line, days)), *low)


def tide(line: TideLine, scale: Mapping[str, float], days: Days) -> Tide:
    """One wool over the days; `scale`: px of one of each unit."""
    steps, x = _steps(line, days), days.x
    least = _least(line, days)
    wanted = _span(line, days) * scale[line.item.unit]
    height = min(HIGHEST, max(LOWEST, wanted))
    px = scale[line.item.unit] * max(1.0, LOWEST / wanted)
    zero = round(height + least * px, 1)

    def y(grams: float) -> float:
        return round(max(0.0, zero - grams * px), 1)

    def stepped(amounts: list[float]) -> str:
        path = f"M0 {y(amounts[0])}"
        for step, amount in zip(steps[1:], amounts[1:], strict=True):
            path += f"H{x(step.date)}V{y(amount)}"
        return path + f"H{WIDTH:g}"

    def around(amounts: list[float]) -> list[float]:
        """The y of a border of the band at each step, within the drawing."""
        return [min(y(amount), round(height + BENEATH_PX, 1)) for amount in amounts]

    borders = [_border(line, step.date) for step in steps]
    band = ""
    if any(high - low > 0.01 for low, high in borders):
        high, low = (around([s.grams + each[side] for s, each in zip(steps, borders, strict=True)]) for side in (1, 0))
        xs = [x(step.date) for step in steps]
        band = f"M0 {high[0]}" + "".join(f"H{at}V{to}" for at, to in zip(xs[1:], high[1:], strict=True))
        back = zip(reversed(xs[1:]), reversed(low[:-1]), strict=True)
        band += f"H{WIDTH:g}V{low[-1]}" + "".join(f"H{at}V{to}" for at, to in back) + "H0Z"
    edge = [step.grams for step in steps]
    closed = f"V{zero}H0Z"
    look = line.outlook
    return Tide(
        line, stepped([max(each, 0.0) for each in edge]) + closed,
        stepped([min(each, 0.0) for each in edge]) + closed if min(edge) < 0 else "", stepped(edge), band, zero,
        x(line.order_by) if line.order_by else None, x(look.runs_out) if look.runs_out else None, height,
        torn=max(edge) * px > zero + 0.1,
    )  # fmt: skip
