"""The clock of a part: it runs from the first taking until the part is made, by itself."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.db import IntegrityError, transaction

from wembit.core.work import spells as core
from wembit.core.work.step import minutes_range
from wembit.web import clock
from wembit.web.figures.order_of_work.order import Line, order_of
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.figures.to_core.hands import MINUTES, hand

from .models import DONE, Making, Piece, Spell

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.studio.models import Member

LEAST_MINUTES = 1.0  # of work at a part that teaches something


@dataclass(frozen=True)
class PartClock:
    """Minutes at a part so far and planned, with the range of eight in ten; `since`: a spell goes on, begun then; `asks`:
    whether somebody still works at it.
    """

    minutes: float
    low: float
    high: float
    since: dt.datetime | None
    asks: bool
    corrected: bool

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
    rows = list(Spell.objects.filter(making=making, part_key=part_key).order_by("begun_at"))
    spells, now = [row.as_core() for row in rows], clock.now()
    since = next((row.begun_at for row in rows if row.ended_at is None), None)
    said = making.minutes.get(part_key)
    worked = core.minutes(spells, now, high) if said is None else float(said)
    return PartClock(worked, low, high, since, core.asks(spells, now, high), said is not None)


def lines_of(making: Making) -> list[Line]:
    """The making's order of work."""
    way = making.colourway
    parts = parts_of(way.version)
    return order_of(way.version, parts, plan_figure(way.version, parts, Palette.of(way)))


def minutes_taken(making: Making) -> dict[str, list[float]]:
    """For each part that the clock ran for, or that somebody told: what the rule plans and what it took, in minutes."""
    keys = {*making.minutes, *Spell.objects.filter(making=making).values_list("part_key", flat=True)}
    if not keys:
        return {}
    lines, bias = lines_of(making), hand(making.studio, MINUTES).bias
    found = {}
    for key in sorted(keys):
        planned, took = planned_minutes(lines, key) / bias, part_clock(making, key, lines).minutes
        if planned > 0 and took >= LEAST_MINUTES:
            found[key] = [round(planned, 2), round(took, 2)]
    return found


def work_on(member: Member, making: Making, part_key: str, at: dt.datetime | None = None) -> None:
    """This maker works at that part from then on, and at nothing else; within the caller's transaction."""
    moment = at or clock.now()
    open_ones = Spell.objects.of(member.studio).filter(maker=member, ended_at=None).select_for_update()
    going = False
    for spell in open_ones:
        if spell.making_id == making.pk and spell.part_key == part_key:
            going = True
        else:
            spell.ended_at = max(spell.begun_at, moment)
            spell.save(update_fields=["ended_at"])
    if not going:
        with suppress(IntegrityError), transaction.atomic():  # another page of this maker was first
            Spell.objects.create(studio=member.studio, making=making, part_key=part_key, maker=member, begun_at=moment)


def stop_where_made(making_id: UUID, part_key: str) -> None:
    """The clock of a part stops when all its pieces are made."""
    if not Piece.objects.filter(making=making_id, part_key=part_key).exclude(state__in=DONE).exists():
        Spell.objects.filter(making=making_id, part_key=part_key, ended_at=None).update(ended_at=clock.now())
