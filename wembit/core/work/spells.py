"""How long a part took, from the spells of work at it: a clock that runs by itself and does not believe a night."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

TURN_EVERY_MIN = 4  # of stabbing, before a piece is turned over, so that it is felted from all sides; common practice


@dataclass(frozen=True)
class Spell:
    """A stretch of work at one part; `ended` None: it goes on. `sure`: the maker has said that it was work all along."""

    begun: dt.datetime
    ended: dt.datetime | None = None
    sure: bool = False


def minutes(spells: Sequence[Spell], now: dt.datetime, most: float) -> float:
    """Minutes of work at a part. Spells that nobody is sure of count together no more than `most`, what nine in ten take at
    most: who stabs touches nothing, and who has gone to bed neither.
    """
    sure = sum(_length(spell, now) for spell in spells if spell.sure)
    others = sum(_length(spell, now) for spell in spells if not spell.sure)
    return sure + min(others, max(0.0, most - sure))


def asks(spells: Sequence[Spell], now: dt.datetime, most: float) -> bool:
    """Whether it is time to ask whether somebody still works at it: one goes on, is past `most`, and was not asked about."""
    going = [spell for spell in spells if spell.ended is None]
    return any(not spell.sure for spell in going) and sum(_length(spell, now) for spell in spells) > most


def ends_at(spells: Sequence[Spell], now: dt.datetime, most: float) -> dt.datetime:
    """When the spell that goes on has ended, where nobody was at it any more: as soon as all of them came to `most`."""
    going = next(spell for spell in spells if spell.ended is None)
    before = sum(_length(spell, now) for spell in spells if spell.ended is not None)
    return min(now, going.begun + dt.timedelta(minutes=max(0.0, most - before)))


def _length(spell: Spell, now: dt.datetime) -> float:
    return max(0.0, ((spell.ended or now) - spell.begun).total_seconds() / 60)
