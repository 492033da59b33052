"""The sizes of a shape, and what a layer does, in a maker's words."""

from __future__ import annotations

from dataclasses import dataclass

from wembit.core.shape import sizes as core

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
    "hole_mm": "across the hole",
}
SHAPES = {
    "sphere": "ball",
    "ellipsoid": "egg",
    "dome": "dome",
    "cylinder": "cylinder",
    "frustum": "tapered",
    "cone": "cone",
    "capsule": "sausage",
    "box": "box",
    "torus": "ring",
    "wrap": "wound on wire",
    "slab": "flat piece",
    "silhouette": "outline turned",
    "none": "no shape of its own",
}

ROLES = {
    "core": "inside",
    "padding": "soft layer",
    "cover": "cover",
    "coat": "long coat",
    "detail": "spots and lines",
    "weighed": "weighed amount",
}


@dataclass(frozen=True)
class Size:
    """One size of a shape, its words and how long it is."""

    name: str
    words: str
    mm: float


def sizes(shape: dict) -> list[Size]:
    """The lengths of a shape; those of an outline are its extents."""
    return [Size(name, WORDS[name], round(mm, 2)) for name, mm in core.sizes(shape).items()]


def related(shape: dict) -> list[Size]:
    """The sizes that can follow another part's: all of them, and a ring's hole."""
    lengths = [size for size in sizes(shape) if size.name != "wire_mm"]
    if shape["kind"] == "torus":
        lengths.append(Size(core.HOLE, WORDS[core.HOLE], round(core.size(shape, core.HOLE), 2)))
    return lengths
