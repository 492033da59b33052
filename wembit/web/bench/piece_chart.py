"""The bench drawn: the piece at its size, loose and felted, beside a column of the weight in hand."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from wembit.core.craft.materials import FORMS
from wembit.core.drawing.views import view
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.web.figures.drawing.layout import closed_path
from wembit.web.figures.to_core.seating import placed_part

if TYPE_CHECKING:
    from wembit.web.figures.models import Part

COLUMN_PX, FOOT_Y = 190.0, 210.0


@dataclass(frozen=True)
class PiecePicture:
    """The finished outline as path data in mm, lying on y 0 and centred on x 0; the loose roll that it starts as."""

    wide: float
    high: float
    half_loose: float
    path: str

    @property
    def zoom(self) -> float:
        """Pixels a mm, so that the larger of piece and roll fills the picture."""
        return round(min(190 / max(self.high, 2 * self.half_loose, 1), 240 / max(self.wide, 1), 6), 2)


@dataclass(frozen=True)
class Column:
    """A column of weight whose foot is at y 210: y of the range's ends and middle, height of what is taken."""

    taken: float
    taken_y: float
    low_y: float
    middle_y: float
    high_y: float
    span: float


def piece_picture(part: Part, grams: float, form: str) -> PiecePicture | None:
    """The piece from the side, and how large a loose roll of those grams is. None for what has no shape of its own."""
    piece = placed_part(part)
    lying = PlacedPart(piece.name, 1, piece.shape, Seat(face="side", bends=piece.seat.bends))
    side_view = view(place([lying]), {}, "side")
    if not side_view.pieces:
        return None
    left, _, right, top = side_view.bounds
    middle = (left + right) / 2
    rings = [[(u - middle, v) for u, v in ring] for ring in side_view.pieces[0].rings]
    density = FORMS[form].loose_g_cm3 if form in FORMS else 0.04
    loose = 10 * (6 * grams / density / math.pi) ** (1 / 3)
    return PiecePicture(right - left, top, loose / 2, closed_path(rings))


def column(line: Any) -> Column:
    """What was taken of a layer against what it takes, as a column."""
    most = max(line.grams.p90 * 1.35, float(line.taken) * 1.05, 1e-6)

    def y(grams: float) -> float:
        return round(FOOT_Y - grams * COLUMN_PX / most, 1)

    low, middle, high = (y(grams) for grams in (line.grams.p10, line.grams.p50, line.grams.p90))
    taken = y(float(line.taken))
    return Column(round(FOOT_Y - taken, 1), taken, low, middle, high, round(low - high, 1))
