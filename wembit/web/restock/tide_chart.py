"""Tide lines: what is left of each wool if the plans hold, falling to the day it runs out."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from .queries import TideLine

WIDTH, HEIGHT = 640.0, 96.0
LAST_LABEL_X = 610.0  # a date further to the right would be cut


@dataclass(frozen=True)
class Tide:
    """Path data in a box of 640 × 130: the line falls from what is on hand, zero at y 96, below it is owed."""

    line: TideLine
    water: str
    edge: str
    zero_y: float
    order_x: float | None
    out_x: float | None
    height: float


@dataclass(frozen=True)
class Chart:
    """The tides of several wools over the same weeks."""

    tides: list[Tide]
    weeks: list[tuple[float, dt.date]]


def chart(lines: Iterable[TideLine], today: dt.date, last_change: dt.date) -> Chart:
    """Tides over the same weeks: from today to two weeks after the last change of all tides, 5 at the least."""
    last = max(today + dt.timedelta(35), last_change + dt.timedelta(14))
    days = (last - today).days

    def x(date: dt.date) -> float:
        return round(WIDTH * (date - today).days / days, 1)

    tides = [_tide(line, x, today, last) for line in lines]
    every = max(1, round(days / 7 / 8))
    weeks = [(x(today + dt.timedelta(7 * k)), today + dt.timedelta(7 * k)) for k in range(0, days // 7 + 1, every)]
    weeks = [(at, date) for at, date in weeks if at <= LAST_LABEL_X]
    return Chart(tides, weeks)


def _tide(line: TideLine, x: Any, today: dt.date, last: dt.date) -> Tide:
    steps = line.steps(today)
    most = max([step.grams for step in steps] + [float(line.item.on_hand), 1e-6])
    least = min([step.grams for step in steps] + [0.0])
    scale = HEIGHT / (most - least)
    zero = round(HEIGHT + least * scale, 1) if least < 0 else HEIGHT

    def y(grams: float) -> float:
        return round(zero - grams * scale, 1)

    edge = f"M0 {y(steps[0].grams)}"
    for step in steps[1:]:
        edge += f"H{x(step.date)}V{y(step.grams)}"
    edge += f"H{x(last)}"
    water = edge + f"V{zero}H0Z"
    look = line.outlook
    return Tide(
        line, water, edge, zero, x(line.order_by) if line.order_by else None, x(look.runs_out) if look.runs_out else None,
        HEIGHT + 10,
    )  # fmt: skip
