"""The piece in hand drawn: at its true size, loose and felted, beside a column of the weight that it takes."""

from __future__ import annotations

import json
import math
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from wembit.core.craft.materials import FORMS
from wembit.core.drawing.views import view
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.shape.solids import Dome
from wembit.web.caches import by_content
from wembit.web.figures.drawing.layout import closed_path
from wembit.web.figures.to_core.seating import placed_part

if TYPE_CHECKING:
    from wembit.core.grams.estimate import Range
    from wembit.web.figures.models import Part

MM_PX = 96 / 25.4  # CSS: 96 px are an inch
ROOM_PX = (248.0, 196.0)  # that a piece may fill, so that it stands beside its column on a phone
COLUMN_PX, FOOT_Y, ROOF_Y = 176.0, 190.0, 8.0
APART_PX = 15.0  # of the words at the two ends of a range, at least
UPRIGHT = 90.0  # degrees
LOOSE_G_CM3 = 0.04  # of a form that is not known, common practice


@dataclass(frozen=True)
class PiecePicture:
    """The finished outline as rings in mm, lying on y 0 and centred on x 0, and as path data; the loose roll that it starts
    as.
    """

    wide: float
    high: float
    half_loose: float
    rings: list[list[tuple[float, float]]]
    path: str

    @property
    def across(self) -> float:
        """Of piece and roll together, in mm."""
        return max(self.wide, 2 * self.half_loose) + 2

    @property
    def up(self) -> float:
        """Of piece and roll together, in mm."""
        return max(self.high, 2 * self.half_loose) + 2

    @property
    def halvings(self) -> int:
        """How often it is halved until it has room; 0: it stands there at its true size."""
        times = max(self.across * MM_PX / ROOM_PX[0], self.up * MM_PX / ROOM_PX[1])
        return max(0, math.ceil(math.log2(times))) if times > 0 else 0

    @property
    def scale(self) -> float:
        """Pixels a mm."""
        return MM_PX / 2**self.halvings

    @property
    def size(self) -> str:
        """In words."""
        return "true size" if not self.halvings else f"1 : {2**self.halvings}"

    @property
    def wide_px(self) -> float:
        return round(self.across * self.scale, 1)

    @property
    def high_px(self) -> float:
        return round(self.up * self.scale, 1)

    @property
    def box(self) -> str:
        """Of the drawing, in mm."""
        return f"{-self.across / 2:.2f} {-self.up + 0.5:.2f} {self.across:.2f} {self.up:.2f}"


@dataclass(frozen=True)
class Column:
    """A column of weight, in px, its foot at y 190: the top of what is taken, of what the plan takes, and of the range's ends,
    where the words of the ends stand.
    """

    taken_y: float
    middle_y: float
    low_y: float
    high_y: float
    low_words_y: float
    high_words_y: float

    @property
    def taken(self) -> float:
        """How high what is taken stands."""
        return round(FOOT_Y - self.taken_y, 1)

    @property
    def to_take(self) -> float:
        """How high what is still to take stands on it."""
        return round(max(0.0, self.taken_y - self.middle_y), 1)


def piece_picture(part: Part, grams: float, form: str) -> PiecePicture | None:
    """The piece from the side, and how large a loose roll of those grams is. None for what has no shape of its own."""
    mark = json.dumps([part.shape, part.seat])
    outline = by_content.get_or_make(("piece", mark), "", lambda: _outline(part))
    if outline is None:
        return None
    density = FORMS[form].loose_g_cm3 if form in FORMS else LOOSE_G_CM3
    return replace(outline, half_loose=10 * (6 * grams / density / math.pi) ** (1 / 3) / 2)


def _outline(part: Part) -> PiecePicture | None:
    """The piece without any wool that it starts as."""
    piece = placed_part(part)
    pitch = UPRIGHT if isinstance(piece.shape, Dome) else 0.0  # a dome lies on its flat side
    lying = PlacedPart(piece.name, 1, piece.shape, Seat(face="side", bends=piece.seat.bends, pitch=pitch))
    side_view = view(place([lying]), {}, "side")
    if not side_view.pieces:
        return None
    left, _, right, top = side_view.bounds
    middle = (left + right) / 2
    rings = [[(u - middle, v) for u, v in ring] for ring in side_view.pieces[0].rings]
    return PiecePicture(right - left, top, 0.0, rings, closed_path(rings))


def column(grams: Range, taken: float) -> Column:
    """What was taken of a layer, in g, against what it takes."""
    most = max(grams.p90 * 1.1, taken * 1.05, 1e-6)

    def y(some: float) -> float:
        return round(FOOT_Y - some * COLUMN_PX / most, 1)

    low, middle, high = (y(some) for some in (grams.p10, grams.p50, grams.p90))
    between = (low + high) / 2
    apart = max(APART_PX, low - high) / 2
    return Column(y(taken), middle, low, high, round(between + apart + 4, 1), round(between - apart + 4, 1))
