"""The sizes of a shape by name, and a shape with other sizes. Shapes are the contract's objects, in mm."""

from __future__ import annotations

from collections.abc import Mapping

from wembit.core.craft.cutter_shapes import CUTTERS

from .solids import KINDS, SOLIDS, Torus, shape_of, solid

CLOSED = tuple(cls.KIND for cls in SOLIDS if cls.BY_SIZES)  # a shape can be made one of these
HOLE = "hole_mm"  # of a ring: what goes through it


def sizes(shape: Mapping) -> dict[str, float]:
    """The lengths of a shape in mm; those of an outline and of stations are their extents."""
    return solid(shape).sizes


def size(shape: Mapping, name: str) -> float:
    """One size, a ring's hole among them. Raises KeyError for a size that the shape has not."""
    one = solid(shape)
    if name == HOLE and isinstance(one, Torus):
        return one.hole_mm
    return one.sizes[name]


def resized(shape: Mapping, given: Mapping[str, float]) -> dict:
    """The shape with new lengths; outlines and stations are stretched to their new extents."""
    return shape_of(solid(shape).with_sizes(given))


def grown(shape: Mapping, times: float) -> dict:
    """The shape with every length × `times`; wire stays as thick as it is."""
    return resized(shape, {name: mm * times for name, mm in sizes(shape).items() if name != "wire_mm"})


def reshaped(shape: Mapping, kind: str) -> dict:
    """Another kind of shape of about the same extents."""
    if kind == shape["kind"] or kind not in CLOSED:
        return dict(shape)
    now = sizes(shape)
    long = next(
        (now[name] for name in ("length_mm", "height_mm", "diameter_mm", "outer_diameter_mm") if name in now), 20.0
    )
    wide = next((now[name] for name in ("width_mm", "diameter_mm", "diameter1_mm") if name in now), long * 0.6)
    wide = min(wide, long)
    middle = {
        "length_mm": long,
        "width_mm": wide,
        "height_mm": now.get("height_mm", wide),
        "diameter_mm": wide,
        "diameter1_mm": wide,
        "diameter2_mm": now.get("diameter2_mm", wide * 0.6),
        "outer_diameter_mm": long,
        "tube_diameter_mm": min(long / 4, wide),
        "wire_mm": min(1.0, wide / 2),
    }
    return {"kind": kind, **{name: round(middle[name], 2) for name in KINDS[kind].SIZES}}


def cut_as(shape: Mapping, name: str) -> dict:
    """A flat piece with the outline of a cutter of that name, its foot at the root, as long, wide and thick as it is. Raises
    KeyError.
    """
    points = CUTTERS[name]
    foot = max(y for _, y in points)
    outline = [[foot - y, x] for x, y in points]
    return resized({**shape, "outline": outline}, sizes(shape))
