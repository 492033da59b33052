"""Short ways to write a figure down: parts with sizes in mm, layers by colour slot, and where each part sits.

Shapes and layers are those of the core's contract; a slot stands where the contract has a fibre. Seats are given in the
standing pose, as pitch and yaw in degrees.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any


@dataclass(frozen=True)
class PlanPart:
    """A part as it is written down; its seat names the part it sits on by name."""

    name: str
    kind: str
    count: int
    shape: dict
    firmness: str | None
    layers: list[dict]
    visible: float | None
    seat: dict
    relations: list[dict] = field(default_factory=list)
    armature: dict = field(default_factory=dict)


def ellipsoid(length: float, width: float, height: float) -> dict:
    """Length, width and height in mm."""
    return {"kind": "ellipsoid", "length_mm": length, "width_mm": width, "height_mm": height}


def sphere(diameter: float) -> dict:
    """A ball so wide, in mm."""
    return {"kind": "sphere", "diameter_mm": diameter}


def capsule(diameter: float, length: float) -> dict:
    """Round at both ends: diameter and length over all, in mm."""
    return {"kind": "capsule", "diameter_mm": diameter, "length_mm": length}


def frustum(d1: float, d2: float, length: float) -> dict:
    """A cut cone: the diameters at its root and at its tip, and its length, in mm."""
    return {"kind": "frustum", "diameter1_mm": d1, "diameter2_mm": d2, "length_mm": length}


def cone(diameter: float, length: float) -> dict:
    """Diameter of the base and length, in mm."""
    return {"kind": "cone", "diameter_mm": diameter, "length_mm": length}


def torus(outer: float, tube: float) -> dict:
    """A ring: diameter over all, and of the strand, in mm."""
    return {"kind": "torus", "outer_diameter_mm": outer, "tube_diameter_mm": tube}


def dome(diameter: float, height: float) -> dict:
    """Diameter of the flat side and height, in mm."""
    return {"kind": "dome", "diameter_mm": diameter, "height_mm": height}


def wrap(diameter: float, length: float, wire: float) -> dict:
    """Wool wound round a wire: diameter, length and the wire's gauge, in mm."""
    return {"kind": "wrap", "length_mm": length, "diameter_mm": diameter, "wire_mm": wire}


def pairs(text: str) -> list[list[float]]:
    """`"0,-4 10,-7"` or `"0:3 7:8"` as a list of [x, y]."""
    return [[float(other) for other in word.replace(":", ",").split(",")] for word in text.split()]


def slab(thickness: float, outline: Any) -> dict:
    """A flat piece so thick, from its outline, in mm."""
    return {"kind": "slab", "outline": pairs(outline), "thickness_mm": thickness}


def silhouette(stations: Any, depth: float) -> dict:
    """Widths along its axis, in mm; `depth`: sideways by width."""
    return {"kind": "silhouette", "stations": pairs(stations), "depth_ratio": depth}


NOTHING = {"kind": "none"}


def core(slot: str, share: float = 1.0, **more: Any) -> dict:
    """A core of a share of the part."""
    return {"role": "core", "slot": slot, "share": share, **more}


def cover(slot: str, share: float = 1.0) -> dict:
    """A cover over the core on a share of the skin."""
    return {"role": "cover", "slot": slot, "over": "core", "share": share}


def detail(slot: str, area: float, **where: Any) -> dict:
    """A patch of `area` mm²; `where`: t and angle, how much longer than wide (`stretch`), in how many `pieces`."""
    return {"role": "detail", "slot": slot, "area_mm2": area, **where}


def dots(slot: str, count: int, across: float, **where: Any) -> dict:
    """So many dots of a diameter in mm."""
    return {"role": "detail", "slot": slot, "spots": count, "across_mm": across, **where}


def padding(slot: str, thickness: float, share: float) -> dict:
    """Soft wool so thick, in mm, on a share of the skin."""
    return {"role": "padding", "slot": slot, "thickness_mm": thickness, "firmness": "airy", "share": share}


def weighed(slot: str, grams: float) -> dict:
    """So many grams a piece."""
    return {"role": "weighed", "slot": slot, "grams": grams}


def root(centre: float, pitch: float = 0) -> dict:
    """The part that carries all: its middle so high over the ground, in mm."""
    return {"on": None, "centre_mm": centre, "pitch": pitch, "yaw": 0}


def on(parent: str, t: float, angle: Any, pitch: float = 0, yaw: float = 0, **more: Any) -> dict:
    """Sits on `parent` at `t` of its axis, `angle` round from its top; an angle of None is on the axis."""
    return {"on": parent, "t": t, "angle": angle, "pitch": pitch, "yaw": yaw, **more}


def part(
    count: int,
    name: str,
    kind: Any,
    shape: Any,
    firmness: Any,
    layers: Any,
    visible: Any,
    seat: Any,
    *relations: Any,
    **armature: Any,
) -> PlanPart:
    """A part, or so many alike; `armature`: what is told of the wire in it."""
    return PlanPart(name, kind, count, shape, firmness, layers, visible, seat, list(relations), armature)


def follows(size: str, of: Any, of_size: str, share: float = 1.0, gap: float = 0.0, *, whole: bool = False) -> dict:
    """A size that is a share of another part's size, and a gap in mm."""
    return {"size": size, "of": of, "of_size": of_size, "share": share, "gap_mm": gap, "whole": whole}


def bead(count: int, name: str, diameter: float, seat: Any) -> PlanPart:
    """An eye or another bought bead: no wool, drawn at its size."""
    return PlanPart(name, "eye", count, NOTHING, None, [], 1.0, {**seat, "bead_mm": diameter})
