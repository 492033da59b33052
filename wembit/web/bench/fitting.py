"""Whether the piece in hand came out as planned, with the scale of firmness to draw."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING

from wembit.core.craft.materials import FIRMNESS, FIRMNESS_WORDS
from wembit.core.work.checking import Checked, Planned, along_scale, checked
from wembit.web.figures.queries import part_among
from wembit.web.figures.to_core.estimating import Palette, PartPlan, armature_mm3, plan_figure
from wembit.web.stash.models import ZERO

from .own_plan import own_plan
from .piece_chart import piece_picture
from .queries import making_of, parts_of_making, trimmed_by_layer

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

    from .models import Piece
    from .piece_chart import PiecePicture
    from .queries import PieceLine

WIDE = 260.0  # px of the drawn scale


@dataclass(frozen=True)
class Mark:
    """A firmness on the scale, and whether it is the planned one."""

    x: float
    words: str
    planned: bool


@dataclass(frozen=True)
class Fitting:
    """A measured piece: what was found, where its density lies on the scale in px, the firmness that it reached in words."""

    found: Checked
    x: float | None
    words: str
    marks: list[Mark]
    add_g: float  # to take, with what is lost on the pad


def fitting(line: PieceLine, plan: PartPlan | None, picture: PiecePicture | None, cut_off: Decimal) -> Fitting | None:
    """The piece as it was measured, against its plan; None where it was not measured or has no size of its own.

    cut_off: grams that were trimmed off it again.
    """
    piece = line.piece
    if piece.long_mm is None or plan is None or picture is None or plan.volume_mm3 <= 0:
        return None
    part = plan.part
    firmness = part.firmness or "medium"
    planned = Planned(picture.wide, picture.high, plan.volume_mm3, armature_mm3(part), firmness)
    in_it = max(ZERO, line.taken - cut_off)
    found = checked(planned, piece.long_mm, piece.thick_mm, float(in_it) / (1 + plan.allowance))
    x = None if found.density is None else round(along_scale(found.density) * WIDE, 1)
    return Fitting(
        found, x, FIRMNESS_WORDS.get(found.firmness, ""), _marks(firmness), found.add_g * (1 + plan.allowance)
    )


def _marks(planned: str) -> list[Mark]:
    return [
        Mark(round(along_scale(density) * WIDE, 1), FIRMNESS_WORDS[name], name == planned)
        for name, density in FIRMNESS.items()
    ]


def cut_off(line: PieceLine, trimmed: dict) -> Decimal:
    """Grams that were trimmed off a piece."""
    return sum((trimmed.get(layer.layer.pk, ZERO) for layer in line.layers), ZERO)


def fit_of(studio: Studio, piece: Piece) -> Fitting | None:
    """How a piece of a making fits as it is measured now, stored or not; None as in `fitting`."""
    line = making_of(studio, piece.making_id)
    way = line.making.colourway
    parts = parts_of_making(line.making)
    plan = own_plan(line, plan_figure(way.version, parts, Palette.of(way)))
    mine = next(each for each in line.pieces if each.piece.pk == piece.pk)
    mine.piece.long_mm, mine.piece.thick_mm = piece.long_mm, piece.thick_mm
    part_plan = next((each for each in plan.parts if each.part.key == piece.part_key), None)
    picture = piece_picture(part_among(parts, piece.part_key), 0.0, "")
    return fitting(mine, part_plan, picture, cut_off(mine, trimmed_by_layer([piece.making_id])))
