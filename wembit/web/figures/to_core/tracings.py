"""A tracing as its board shows it: shape, weight, grid; and as a part."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING
from uuid import UUID

from django.shortcuts import get_object_or_404

from wembit.core.errors import BadInput
from wembit.core.grams.estimate import Range, estimate
from wembit.core.shape import tracing as core
from wembit.core.shape.sizes import sizes
from wembit.web.errors import Refusal
from wembit.web.figures.models import Tracing
from wembit.web.limits import POINTS

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

BARE_WIDTH, BARE_HEIGHT = 1000, 640  # units of a board without a picture
GRID_MM = 10.0
MOST_LINES = 400
SIZES = ("depth_ratio", "thickness_mm", "diameter_mm", "wire_mm", "firmness", "mark_mm")


@dataclass(frozen=True)
class Drawn:
    """What a tracing brings: the shape, its firmness, and of a wire its pitch in the standing pose and its bends."""

    shape: dict
    firmness: str
    pitch: float | None = None
    bends: list | None = None


def tracing_of(studio: Studio, figure_id: UUID, tracing_id: UUID) -> Tracing:
    """This figure's tracing with its picture. Raises `Http404`."""
    return get_object_or_404(Tracing.objects.of(studio).select_related("reference"), pk=tracing_id, figure=figure_id)


def apply(tracing: Tracing, changes: dict) -> None:
    """Give a tracing `points` and `marks` (in units of the board) and sizes, unsaved. Raises `Refusal`."""
    if len(changes.get("points", ())) > POINTS:
        raise Refusal(f"At most {POINTS} points. Take some away.", "points")
    for name in SIZES:
        if name in changes:
            setattr(tracing, name, changes[name])
    tracing.points = changes.get("points", tracing.points)
    tracing.marks = changes.get("marks", tracing.marks)
    if len(tracing.marks) == 2:
        try:
            tracing.mm_a_unit = core.scale_of(tracing.marks[0], tracing.marks[1], tracing.mark_mm)
        except BadInput as fault:
            raise Refusal(f"The two ends of the distance {fault.what}.", "mark_mm") from None


def board_size(tracing: Tracing) -> tuple[int, int]:
    """Width and height of the board in its units."""
    if tracing.reference:
        return tracing.reference.width_px, tracing.reference.height_px
    return BARE_WIDTH, BARE_HEIGHT


def millimetres(tracing: Tracing) -> list[tuple[float, float]]:
    """The points in mm from the lower left corner of the board, y up."""
    high = board_size(tracing)[1]
    return [(x * tracing.mm_a_unit, (high - y) * tracing.mm_a_unit) for x, y in tracing.points]


def units(tracing: Tracing, x_mm: float, y_mm: float) -> list[float]:
    """A place in mm as units of the board."""
    return [round(x_mm / tracing.mm_a_unit, 3), round(board_size(tracing)[1] - y_mm / tracing.mm_a_unit, 3)]


def drawn_of(tracing: Tracing) -> Drawn:
    """What the tracing becomes. Raises `Refusal` with the core's words."""
    points = millimetres(tracing)
    try:
        if tracing.kind == Tracing.SILHOUETTE:
            return Drawn(core.silhouette(points, tracing.depth_ratio), tracing.firmness)
        if tracing.kind == Tracing.SLAB:
            return Drawn(core.flat_piece(points, tracing.thickness_mm), tracing.firmness)
        shape, pitch, bends = core.wire(points, tracing.diameter_mm, tracing.wire_mm)
        return Drawn(shape, tracing.firmness, pitch, bends)
    except BadInput as fault:
        raise Refusal(f"{fault.what[0].upper()}{fault.what[1:]}.", "points") from None


def weight_of(tracing: Tracing) -> tuple[dict[str, float], Range]:
    """Sizes in mm, and the grams of the traced part in one wool right through. Raises `Refusal`."""
    drawn = drawn_of(tracing)
    part = {"name": "traced", "shape": drawn.shape, "firmness": tracing.firmness,
            "layers": [{"role": "core", "fibre": "wool"}]}  # fmt: skip
    try:
        return sizes(drawn.shape), estimate({"parts": [part]}).all
    except BadInput as fault:
        raise Refusal(f"{fault.what[0].upper()}{fault.what[1:]}.", "points") from None


def grid_of(tracing: Tracing) -> str:
    """Lines every 10 mm over the board, or every 100 mm where they would lie too close; path data."""
    width, height = board_size(tracing)
    step = GRID_MM / tracing.mm_a_unit
    while max(width, height) / step > MOST_LINES:
        step *= 10
    upright = "".join(f"M{k * step:.2f} 0V{height}" for k in range(int(width / step) + 1))
    return upright + "".join(f"M0 {height - k * step:.2f}H{width}" for k in range(int(height / step) + 1))
