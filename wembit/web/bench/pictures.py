"""The bench drawn: the piece at its size, loose and felted, beside a column of the weight in hand."""

from __future__ import annotations

import math
from dataclasses import dataclass

from wembit.core.fibres import FORMS
from wembit.web.figures.laying_out import placed_part

COLUMN_PX, FOOT_Y = 190.0, 210.0


@dataclass(frozen=True)
class PiecePicture:
    """Finished extents in mm (`wide` × `high`) and the diameter of the loose roll that it starts as."""

    wide: float
    high: float
    loose: float
    shape: str

    @property
    def half_wide(self) -> float:
        return self.wide / 2

    @property
    def half_high(self) -> float:
        return self.high / 2

    @property
    def half_loose(self) -> float:
        return self.loose / 2


@dataclass(frozen=True)
class Column:
    """A column of weight whose foot is at y 210: y of the range's ends and middle, height of what is taken."""

    taken: float
    taken_y: float
    low_y: float
    middle_y: float
    high_y: float
    span: float


def piece_picture(part, grams: float, form: str) -> PiecePicture:
    """How large a loose roll of those grams is beside the finished piece. Loose densities are those of the forms."""
    piece = placed_part(part)
    extents = _extents(piece.shape)
    density = FORMS[form].loose_g_cm3 if form in FORMS else 0.04
    loose = 10 * (6 * grams / density / math.pi) ** (1 / 3)
    return PiecePicture(extents[0], extents[1], loose, part.shape["kind"])


def _extents(shape) -> tuple[float, float]:
    names = ("length_mm", "height_mm", "width_mm", "diameter_mm", "outer_diameter_mm", "diameter1_mm", "thickness_mm")
    found = [getattr(shape, name) for name in names if hasattr(shape, name)]
    if hasattr(shape, "outline"):
        xs, ys = zip(*shape.outline, strict=True)
        return max(xs) - min(xs), max(ys) - min(ys)
    if hasattr(shape, "stations"):
        return shape.stations[-1][0] - shape.stations[0][0], max(w for _, w in shape.stations)
    if not found:
        return 0.0, 0.0
    return (found[0], found[1]) if len(found) > 1 else (found[0], found[0])


def column(line) -> Column:
    most = max(line.grams.p90 * 1.35, float(line.taken) * 1.05, 1e-6)

    def y(grams: float) -> float:
        return round(FOOT_Y - grams * COLUMN_PX / most, 1)

    low, middle, high = (y(grams) for grams in (line.grams.p10, line.grams.p50, line.grams.p90))
    taken = y(float(line.taken))
    return Column(round(FOOT_Y - taken, 1), taken, low, middle, high, round(low - high, 1))
