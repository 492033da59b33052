"""What a finished making says of its figure: sizes, firmness and grams as they came out, to be planned with next time."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from statistics import fmean
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.craft.materials import FIRMNESS_WORDS
from wembit.core.grams.relations import WOOL
from wembit.core.work.as_made import came_out, differs, felted, is_same, weighs_otherwise
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.stash.models import ZERO

from .fitting import Fitting, cut_off, fitting
from .piece_chart import PiecePicture, piece_picture
from .queries import booked_layers, trimmed_by_layer

if TYPE_CHECKING:
    from wembit.web.figures.models import Part
    from wembit.web.figures.to_core.estimating import FigurePlan, PartPlan

    from .queries import MakingLine, PieceLine


@dataclass(frozen=True)
class AsMade:
    """A part as it came out: its length and thickness in mm against the plan, where it was measured; the firmness to plan
    with, where that is another; grams a piece, where only its weight is known and was another. `shape`: of the measured one.
    """

    key: str
    name: str
    long_mm: float | None = None
    planned_long_mm: float = 0.0
    thick_mm: float | None = None
    planned_thick_mm: float = 0.0
    shape: Mapping | None = None
    firmness: str = ""
    grams: float | None = None
    planned_g: float = 0.0

    @property
    def firmness_words(self) -> str:
        return FIRMNESS_WORDS.get(self.firmness, "")


def as_made(line: MakingLine, plan: FigurePlan) -> list[AsMade]:
    """What the newest version of the figure would take over, part by part; empty where all came out as planned, nothing was
    measured and nothing weighed, that version has it already, or the parts have changed their kind since. `plan`: the making's
    own.
    """
    version = newest_version(line.making.colourway.version.figure)
    newest = {part.key: part for part in parts_of(version)}
    trimmed, booked = trimmed_by_layer([line.making.pk]), booked_layers([line.making.pk])
    found = []
    for part_plan in plan.parts:
        part, now = part_plan.part, newest.get(part_plan.part.key)
        pieces = [piece for piece in line.pieces if piece.piece.part_key == part.key]
        if now is None or now.shape["kind"] != part.shape["kind"] or part.seat.get("row") or not pieces:
            continue
        fits = _fits(part_plan, pieces, trimmed)
        row = _measured(part_plan, now, pieces, fits) if fits else _weighed(part, now, pieces, booked)
        if row:
            found.append(row)
    return found


def _fits(plan: PartPlan, pieces: Sequence[PieceLine], trimmed: dict[UUID, Decimal]) -> list[Fitting]:
    """What was measured of a part's pieces."""
    picture = piece_picture(plan.part, 0.0, "")
    return [each for each in (fitting(piece, plan, picture, cut_off(piece, trimmed)) for piece in pieces) if each]


def _measured(plan: PartPlan, now: Part, pieces: Sequence[PieceLine], fits: Sequence[Fitting]) -> AsMade | None:
    """Of the pieces that were measured, their mean."""
    part = plan.part
    picture = piece_picture(part, 0.0, "")
    if picture is None:
        return None
    long, thick = (fmean(getattr(each.found, side) for each in fits) for side in ("long", "thick"))
    bias = pieces[0].layers[0].layer.bias if pieces[0].layers else 1.0
    dense = [each.found.density for each in fits if each.found.density]
    firmness = felted(fmean(dense), bias) if dense and part.firmness else ""
    firmness = "" if firmness == now.firmness else firmness
    if not differs(long) and not differs(thick) and not firmness:
        return None
    shape = came_out(part.shape, long, thick)
    if is_same(shape, now.shape) and not firmness:
        return None
    was = _of(now, picture)
    return AsMade(
        part.key, part.name, long * picture.wide, was.wide, thick * picture.high, was.high, shape, firmness
    )  # fmt: skip


def _of(now: Part, otherwise: PiecePicture) -> PiecePicture:
    return piece_picture(now, 0.0, "") or otherwise


def _weighed(part: Part, now: Part, pieces: Sequence[PieceLine], booked: set[UUID]) -> AsMade | None:
    """Of a part that was weighed to its end and not measured: what a piece took."""
    layers = [layer for piece in pieces for layer in piece.layers]
    if any(layer.layer.pk in booked or not layer.taken for layer in layers):
        return None
    planned = sum(piece.p50 for piece in pieces) / len(pieces)
    grams = round(float(sum((piece.taken for piece in pieces), ZERO)) / len(pieces), 2)
    if not weighs_otherwise(grams, planned) or grams in _said(now):
        return None
    return AsMade(part.key, part.name, grams=grams, planned_g=planned)


def _said(part: Part) -> list[float]:
    """The grams a piece that the part is told to take."""
    return [each["share"] for each in part.relations if each["size"] == WOOL and each["of"] is None]
