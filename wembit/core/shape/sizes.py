"""The sizes of a shape by name, and a shape with other sizes. Shapes are the contract's objects, in mm."""

from __future__ import annotations

from collections.abc import Mapping

SIZES = {
    "sphere": ("diameter_mm",),
    "ellipsoid": ("length_mm", "width_mm", "height_mm"),
    "dome": ("diameter_mm", "height_mm"),
    "cylinder": ("diameter_mm", "length_mm"),
    "frustum": ("diameter1_mm", "diameter2_mm", "length_mm"),
    "cone": ("diameter_mm", "length_mm"),
    "capsule": ("diameter_mm", "length_mm"),
    "box": ("length_mm", "width_mm", "height_mm"),
    "torus": ("outer_diameter_mm", "tube_diameter_mm"),
    "wrap": ("length_mm", "diameter_mm", "wire_mm"),
    "slab": ("length_mm", "width_mm", "thickness_mm"),
    "silhouette": ("length_mm", "width_mm"),
    "none": (),
}
CLOSED = ("sphere", "ellipsoid", "dome", "cylinder", "frustum", "cone", "capsule", "box", "torus", "wrap")
HOLE = "hole_mm"  # of a ring: what goes through it


def sizes(shape: Mapping) -> dict[str, float]:
    """The lengths of a shape in mm; those of an outline and of stations are their extents."""
    if shape["kind"] == "slab":
        xs, ys = zip(*shape["outline"], strict=True)
        return {"length_mm": max(xs) - min(xs), "width_mm": max(ys) - min(ys), "thickness_mm": shape["thickness_mm"]}
    if shape["kind"] == "silhouette":
        stations = shape["stations"]
        return {"length_mm": stations[-1][0] - stations[0][0], "width_mm": max(width for _, width in stations)}
    return {name: shape[name] for name in SIZES[shape["kind"]]}


def size(shape: Mapping, name: str) -> float:
    """One size, a ring's hole among them. Raises KeyError for a size that the shape has not."""
    if name == HOLE and shape["kind"] == "torus":
        return shape["outer_diameter_mm"] - 2 * shape["tube_diameter_mm"]
    return sizes(shape)[name]


def resized(shape: Mapping, given: Mapping[str, float]) -> dict:
    """The shape with new lengths; outlines and stations are stretched to their new extents."""
    now = sizes(shape)
    ways = {name: given.get(name, now[name]) / now[name] for name in now if now[name]}
    if shape["kind"] == "slab":
        outline = [[x * ways.get("length_mm", 1), y * ways.get("width_mm", 1)] for x, y in shape["outline"]]
        return {**shape, "outline": outline, "thickness_mm": given.get("thickness_mm", shape["thickness_mm"])}
    if shape["kind"] == "silhouette":
        stations = [[x * ways.get("length_mm", 1), w * ways.get("width_mm", 1)] for x, w in shape["stations"]]
        return {**shape, "stations": stations}
    if HOLE in given and shape["kind"] == "torus":
        return {**shape, "outer_diameter_mm": given[HOLE] + 2 * shape["tube_diameter_mm"]}
    return {**shape, **{name: given[name] for name in given if name in shape}}


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
    return {"kind": kind, **{name: round(middle[name], 2) for name in SIZES[kind]}}
