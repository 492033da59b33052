"""What dries beside the work: the steps of a making that have to, and how far each is."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web import clock

from .queries import dryings_of

if TYPE_CHECKING:
    from wembit.web.figures.order_of_work.order import Line

    from .models import Drying, Making


@dataclass(frozen=True)
class ToDry:
    """A step that has to dry, and since when it does; `left`: until it has."""

    line: Line
    drying: Drying | None
    left: dt.timedelta

    @property
    def left_ms(self) -> int:
        return max(0, round(self.left.total_seconds() * 1000))

    @property
    def over(self) -> bool:
        """Whether its time is over and nobody has said so yet."""
        return self.drying is not None and not self.drying.dry and not self.left_ms


def to_dry(making: Making, steps: Sequence[Line], *, begun: bool = True) -> list[ToDry]:
    """The steps of a making that have to dry, in the order of work, without those that are dry; `begun`: whether any does
    already. One query at most.
    """
    waits = [line for line in steps if line.step.wait_hours]
    if not waits:
        return []
    dries, now = {drying.step: drying for drying in dryings_of([making.pk] if begun else [])}, clock.now()
    rows = [(line, dries.get(line.step.id)) for line in waits]
    return [
        ToDry(line, drying, drying.until - now if drying else dt.timedelta())
        for line, drying in rows
        if drying is None or not drying.dry
    ]
