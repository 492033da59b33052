"""The sizes of a shape as fields that a maker reads, and back."""

from __future__ import annotations

from dataclasses import dataclass

WORDS = {
    "diameter_mm": "across",
    "length_mm": "long",
    "width_mm": "wide",
    "height_mm": "high",
    "diameter1_mm": "across at its root",
    "diameter2_mm": "across at its tip",
    "outer_diameter_mm": "across the ring",
    "tube_diameter_mm": "thick",
    "thickness_mm": "thick",
    "wire_mm": "wire",
}
KINDS = {
    "sphere": ("ball", ("diameter_mm",)),
    "ellipsoid": ("egg", ("length_mm", "width_mm", "height_mm")),
    "dome": ("dome", ("diameter_mm", "height_mm")),
    "cylinder": ("cylinder", ("diameter_mm", "length_mm")),
    "frustum": ("tapered", ("diameter1_mm", "diameter2_mm", "length_mm")),
    "cone": ("cone", ("diameter_mm", "length_mm")),
    "capsule": ("sausage", ("diameter_mm", "length_mm")),
    "box": ("box", ("length_mm", "width_mm", "height_mm")),
    "torus": ("ring", ("outer_diameter_mm", "tube_diameter_mm")),
    "wrap": ("wound on wire", ("length_mm", "diameter_mm", "wire_mm")),
    "slab": ("flat piece", ("length_mm", "width_mm", "thickness_mm")),
    "silhouette": ("outline turned", ("length_mm", "width_mm")),
    "none": ("no shape of its own", ()),
}
CLOSED = ("sphere", "ellipsoid", "dome", "cylinder", "frustum", "cone", "capsule", "box", "torus", "wrap")


@dataclass(frozen=True)
class Size:
    name: str
    words: str
    mm: float


def sizes(shape: dict) -> list[Size]:
    """The lengths of a shape; those of an outline are its extents."""
    if shape["kind"] == "slab":
        xs, ys = zip(*shape["outline"], strict=True)
        extents = {"length_mm": max(xs) - min(xs), "width_mm": max(ys) - min(ys), "thickness_mm": shape["thickness_mm"]}
        return [Size(name, WORDS[name], round(mm, 2)) for name, mm in extents.items()]
    if shape["kind"] == "silhouette":
        stations = shape["stations"]
        extents = {"length_mm": stations[-1][0] - stations[0][0], "width_mm": max(width for _, width in stations)}
        return [Size(name, WORDS[name], round(mm, 2)) for name, mm in extents.items()]
    return [Size(name, WORDS[name], round(shape[name], 2)) for name in KINDS[shape["kind"]][1]]


def resized(shape: dict, given: dict[str, float]) -> dict:
    """The shape with new lengths; outlines are stretched to their new extents."""
    now = {size.name: size.mm for size in sizes(shape)}
    ways = {name: given.get(name, now[name]) / now[name] for name in now if now[name]}
    if shape["kind"] == "slab":
        outline = [[x * ways.get("length_mm", 1), y * ways.get("width_mm", 1)] for x, y in shape["outline"]]
        return {**shape, "outline": outline, "thickness_mm": given.get("thickness_mm", shape["thickness_mm"])}
    if shape["kind"] == "silhouette":
        stations = [[x * ways.get("length_mm", 1), w * ways.get("width_mm", 1)] for x, w in shape["stations"]]
        return {**shape, "stations": stations}
    return {**shape, **{name: given[name] for name in given if name in shape}}


def reshaped(shape: dict, kind: str) -> dict:
    """Another kind of shape of about the same extents."""
    if kind == shape["kind"] or kind not in CLOSED:
        return shape
    now = {size.name: size.mm for size in sizes(shape)}
    long = (
        now.get("length_mm") or now.get("height_mm") or now.get("diameter_mm") or now.get("outer_diameter_mm") or 20.0
    )
    wide = now.get("width_mm") or now.get("diameter_mm") or now.get("diameter1_mm") or long * 0.6
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
    return {"kind": kind, **{name: round(middle[name], 2) for name in KINDS[kind][1]}}
