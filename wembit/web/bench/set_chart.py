"""Pieces that belong together: a pair on a balance, more of them in a row, each with the wool that went into it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.core.work.alike import alike_within, differ
from wembit.web.decimals import to_step
from wembit.web.stash.models import ZERO

if TYPE_CHECKING:
    from decimal import Decimal
    from uuid import UUID

    from .queries import LayerLine, MakingLine, PieceLine

PANS_X, LEVEL_Y, CORD_PX = (52.0, 188.0), 20.0, 26.0
FALLS_PX = 14.0  # of a pan at most, from level
FULL_TILT = 0.5  # of what a piece takes: a difference at which a pan lies near its lowest
MOST_FULL = 1.09
HEAP_PX = 16.0  # half the width of a heap that holds all that a piece takes
CELL_PX, CELL_FOOT = 44.0, 48.0  # that a piece's whole wool fills in its cell, and where that stands


@dataclass(frozen=True)
class Cell:
    """A piece of the set: its number, the same layer of it, what it has got of that, and how high that fills the cell."""

    number: int
    piece: PieceLine
    layer: LayerLine
    here: bool
    fills: float

    @property
    def pk(self) -> UUID:
        return self.layer.layer.pk

    @property
    def top(self) -> float:
        """The y of what it has got, in its cell."""
        return round(CELL_FOOT - self.fills, 1)


@dataclass(frozen=True)
class Pan:
    """Where a pan hangs, and half the width of the heap on it, in px."""

    x: float
    y: float
    heap: float

    @property
    def floor(self) -> float:
        return round(self.y + CORD_PX, 1)

    @property
    def left(self) -> float:
        return round(self.x - self.heap, 1)

    @property
    def across(self) -> float:
        return 2 * self.heap


@dataclass(frozen=True)
class Set:
    """The pieces of a part: `lacks` is what the lighter of a pair needs, None where they are alike or not both begun;
    `within`: how far they may differ, as a share; `tilt`: how far the first pan is lower, in px.
    """

    cells: list[Cell]
    within: float
    lacks: Decimal | None = None
    lighter: int = 0
    tilt: float = 0.0

    @property
    def pair(self) -> bool:
        return len(self.cells) == 2

    @property
    def pans(self) -> list[Pan]:
        """The two of a pair on the balance."""
        full = max(1.0, *(cell.layer.share for cell in self.cells))
        heaps = [round(HEAP_PX * math.sqrt(max(0.0, cell.layer.share / full)), 1) for cell in self.cells]
        falls = (self.tilt, -self.tilt)
        return [Pan(x, round(LEVEL_Y + fall, 1), heap) for x, fall, heap in zip(PANS_X, falls, heaps, strict=True)]

    @property
    def both(self) -> bool:
        """Whether wool was taken for each."""
        return all(cell.layer.taken > 0 for cell in self.cells)


def set_of(line: MakingLine, piece: PieceLine, layer: LayerLine, kind: str) -> Set | None:
    """The pieces of the same part with what went into each; None where there is one alone."""
    siblings = [other for other in line.pieces if other.piece.part_key == piece.piece.part_key]
    if len(siblings) < 2:
        return None
    cells = []
    for number, other in enumerate(siblings, 1):
        same = next((each for each in other.layers if each.layer.position == layer.layer.position), None)
        if same is None:
            continue
        here = other.piece.pk == piece.piece.pk
        cells.append(Cell(number, other, same, here, round(min(MOST_FULL, same.share) * CELL_PX, 1)))
    found = Set(cells, alike_within(kind))
    return _weighed(found) if found.pair else found


def _weighed(pair: Set) -> Set:
    """A pair on the balance: what each has got of what it takes, so that a row of different sizes is fair, too."""
    one, other = (cell.layer for cell in pair.cells)
    tilt = FALLS_PX * math.tanh((one.share - other.share) / FULL_TILT)
    lighter = 0 if one.share < other.share else 1
    ratio = one.grams.p50 / other.grams.p50 if other.grams.p50 else 1.0
    wanted = (float(other.taken) * ratio if lighter == 0 else float(one.taken) / ratio) if ratio else 0.0
    lacks = None
    if pair.both and differ(one.share, other.share, pair.within):
        lacks = max(ZERO, to_step(wanted) - (one, other)[lighter].taken)
    return Set(pair.cells, pair.within, lacks, lighter, round(tilt, 1))
