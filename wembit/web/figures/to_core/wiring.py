"""The wires of a figure, from what its parts say of theirs."""

from __future__ import annotations

from collections.abc import Sequence

from wembit.core.craft.armature import BARE_MM, WIRE, Make, Wire
from wembit.core.pose.placing import axis_length
from wembit.web.figures.models import Part

from .seating import placed_part

BEGUN_GAUGE_MM = 1.0


def wire_of(part: Part) -> Wire | None:
    """The wire in a part's pieces; None for a part without any."""
    told = part.armature
    wound = part.shape["kind"] == "wrap"
    if not wound and not told:
        return None
    placed = placed_part(part)
    if wound:
        length, gauge = placed.shape.axis_mm, part.shape["wire_mm"]
    else:
        length, gauge = axis_length(placed.shape, placed.seat), told.get("gauge_mm", BEGUN_GAUGE_MM)
    return Wire(
        part.name, part.count, length, gauge,
        bare_mm=told.get("bare_mm", BARE_MM), loop_mm=told.get("loop_mm", 0.0), doubled=told.get("doubled", False),
        through_mm=told.get("through_mm"), back_mm=told.get("back_mm", 0.0),
        twist=told.get("twist", 0.0),
        former=told.get("former", False), kind=told.get("kind", WIRE),
        make=Make(told.get("metal", ""), told.get("coating", "")),
    )  # fmt: skip


def wires(parts: Sequence[Part]) -> list[Wire]:
    """The wires of all parts that have one."""
    return [wire for part in parts if (wire := wire_of(part)) is not None]
