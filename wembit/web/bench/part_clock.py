"""The clock of a part: it runs from the first taking until the part is made, by itself."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.core.work import spells as core
from wembit.core.work.step import minutes_range
from wembit.web import clock
from wembit.web.figures.order_of_work.order import Line, order_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.figures.to_core.hands import MINUTES, hand

from .queries import parts_of_making, spells_of

if TYPE_CHECKING:
    from .models import Making

LEAST_MINUTES = 1.0  # of work at a part that teaches something


@dataclass(frozen=True)
class PartClock:
    """Minutes at a part so far and planned, with the range of eight in ten; `runs`: somebody works at it, and nobody said
    how long it took; `asks`: it is time to ask whether somebody still does.
    """

    minutes: float
    low: float
    high: float
    runs: bool
    asks: bool
    corrected: bool

    @property
    def turn_every(self) -> int:
        """Minutes after which the piece is turned over."""
        return core.TURN_EVERY_MIN

    @property
    def so_far_ms(self) -> int:
        """The same in milliseconds, for a clock that ticks on the page."""
        return round(60_000 * self.minutes)


def planned_minutes(lines: Iterable[Line], part_key: str) -> float:
    """What the order of work plans for a part, all its pieces; a step of several parts is shared by them."""
    return sum(line.step.minutes / len(line.step.parts) for line in lines if part_key in line.step.parts)


def part_clock(making: Making, part_key: str, lines: Sequence[Line]) -> PartClock:
    """The clock of a part of a making, by the minutes of its order of work."""
    low, high = minutes_range(planned_minutes(lines, part_key))
    spells, now = [row.as_core() for row in spells_of(making, part_key)], clock.now()
    said = making.minutes.get(part_key)
    worked = core.minutes(spells, now, high) if said is None else float(said)
    runs = said is None and any(spell.ended is None for spell in spells)
    return PartClock(worked, low, high, runs, core.asks(spells, now, high), said is not None)


def lines_of(making: Making) -> list[Line]:
    """The making's order of work."""
    way = making.colourway
    parts = parts_of_making(making)
    return order_of(way.version, parts, plan_figure(way.version, parts, Palette.of(way)))


def minutes_taken(making: Making) -> dict[str, list[float]]:
    """For each part that the clock ran for, or that somebody told: what the rule plans and what it took, in minutes."""
    keys = {*making.minutes, *(spell.part_key for spell in spells_of(making))}
    if not keys:
        return {}
    lines, bias = lines_of(making), hand(making.studio, MINUTES).bias
    found = {}
    for key in sorted(keys):
        planned, took = planned_minutes(lines, key) / bias, part_clock(making, key, lines).minutes
        if planned > 0 and took >= LEAST_MINUTES:
            found[key] = [round(planned, 2), round(took, 2)]
    return found
