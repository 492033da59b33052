"""Blends as they were expected and as they came out, and what the studio's mixing is made of."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from wembit.core.colour.difference import in_words
from wembit.core.colour.mixture import M, blend
from wembit.core.learning.mixing import FEWEST
from wembit.web.stash.mixing import mixing_of, told_blends
from wembit.web.stash.swatch import swatch_of_curve

if TYPE_CHECKING:
    from wembit.core.learning.mixing import Mixing
    from wembit.web.stash.models import Lot
    from wembit.web.studio.models import Studio

SHOWN = 12  # blends, the newest


@dataclass(frozen=True)
class BlendRow:
    """A blend: what the book says it is, what the studio's own mixing says, what it became, and how far (ΔE00) each is off."""

    lot: Lot
    by_book: str
    by_own: str
    book_off: float
    own_off: float

    @property
    def words(self) -> str:
        """How near what is expected now comes."""
        return in_words(self.own_off)


@dataclass(frozen=True)
class LearntBlends:
    """What blends have taught, the blends, and how many more are needed until they teach."""

    mixing: Mixing
    rows: list[BlendRow]

    @property
    def more(self) -> int:
        return max(0, FEWEST - self.mixing.n)

    @property
    def darker(self) -> bool:
        """Whether the studio's blends come out darker than the book's: a small M lets dark wool weigh more."""
        return self.mixing.m < M


def learnt_blends(studio: Studio) -> LearntBlends:
    """The studio's told blends, the newest first, with what is expected of them. Two queries."""
    mixing, rows = mixing_of(studio), []
    for told in told_blends(studio)[:SHOWN]:
        carded = told.carded
        by_book, by_own = (swatch_of_curve(blend(carded.curves, carded.masses, m))["srgb"] for m in (M, mixing.m))
        book_off, own_off = carded.off(np.array([M, mixing.m])).tolist()
        rows.append(BlendRow(told.lot, by_book, by_own, book_off, own_off))
    return LearntBlends(mixing, rows)
