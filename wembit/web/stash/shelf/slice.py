"""A bag with a slice cut off: what is taken leaves it at the top, to scale."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal

from wembit.web.stash.models import Lot

from .shelf_chart import DrawnLot, draw

APART = 12.0  # of the drawing's box: how far a slice stands off
HEAP = 60.0  # g: a bag of less is drawn smaller than the tray has room for
PX2_PER_GRAM, LEAST_PX2 = 60.0, 400


@dataclass(frozen=True)
class Slice:
    """What leaves a bag: above `cut` of the drawing's box; `stays` in it, `promised` of the slice are somebody's."""

    drawn: DrawnLot
    cut: float
    taken: Decimal
    stays: Decimal
    promised: Decimal
    missing: Decimal

    @property
    def top(self) -> float:
        """Well above the drawing, in its box."""
        return self.box[1] - APART

    @property
    def above(self) -> float:
        """From there down to the cut."""
        return self.cut - self.top

    @property
    def box(self) -> tuple[float, float, float, float]:
        """Left, top, width and height of the drawing with the slice above it."""
        left, top, width, height = self.drawn.drawing.box
        return left, top - APART, width, height + APART

    @property
    def size(self) -> tuple[float, float]:
        """Width and height in px, at the scale of the bag."""
        _, _, _, inner = self.drawn.drawing.box
        return self.drawn.width, round(self.drawn.height * (inner + APART) / inner, 1)


def in_the_tray(lot: Lot) -> DrawnLot:
    """The bag (with `promised`) as large as the tray has room for."""
    return draw(lot, PX2_PER_GRAM if lot.on_hand < HEAP else PX2_PER_GRAM * HEAP / float(lot.on_hand or 1), LEAST_PX2)


def slice_off(lot: Lot, amount: Decimal) -> Slice | None:
    """So much leaves the bag (with `promised`); nothing where nobody knows what it holds, or nothing leaves it."""
    if not lot.weighed or amount <= 0 or not lot.on_hand:
        return None
    drawn, taken = in_the_tray(lot), min(amount, lot.on_hand)
    stays = lot.on_hand - taken
    return Slice(
        drawn,
        drawn.drawing.level(float(stays / lot.on_hand)),
        taken,
        stays,
        max(lot.promised - stays, Decimal(0)),
        amount - taken,
    )
