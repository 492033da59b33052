"""What a new part is: the shape, firmness and seat that its kind brings, from the length that the maker gives.

Proportions are common practice of the trade; each can be changed afterwards.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field


@dataclass(frozen=True)
class Kind:
    """`shape` from a length in mm; `seat` in the standing pose on `on` (the first kind that the figure has)."""

    name: str
    count: int
    firmness: str
    shape: Callable[[float], dict]
    on: tuple[str, ...]
    seat: dict = field(default_factory=dict)
    covered: bool = False


def _ellipsoid(width: float, height: float) -> Callable[[float], dict]:
    return lambda n: {"kind": "ellipsoid", "length_mm": n, "width_mm": n * width, "height_mm": n * height}


def _capsule(thick: float) -> Callable[[float], dict]:
    return lambda n: {"kind": "capsule", "diameter_mm": n * thick, "length_mm": n}


def _leaf(broad: float, thick: float) -> Callable[[float], dict]:
    """A slab from a leaf-like outline as long as asked."""
    stations = ((0, 0.5), (0.2, 0.9), (0.5, 1.0), (0.8, 0.7), (1, 0.0))

    def shape(n: float) -> dict:
        upper = [[n * t, n * broad / 2 * w] for t, w in stations]
        lower = [[x, -y] for x, y in upper[-2::-1]]
        return {"kind": "slab", "outline": upper + lower, "thickness_mm": max(2.0, n * thick)}

    return shape


HOSTS = ("body", "shell", "tower", "base")
KINDS: dict[str, Kind] = {
    "body": Kind("body", 1, "medium", _ellipsoid(0.55, 0.6), HOSTS, {"t": 0.5, "angle": 0, "by": 0.5}, True),
    "head": Kind("head", 1, "firm", _ellipsoid(0.8, 0.8), HOSTS,
                 {"t": 0.93, "angle": 0, "pitch": -5, "by": 0.3, "sink_share": 0.08}, True),
    "ear": Kind("ear", 2, "firm", _leaf(0.45, 0.1), ("head", "body"),
                {"t": 0.32, "angle": 35, "pitch": 65, "yaw": 150, "sink_share": 0.08, "face": "side"}),
    "snout": Kind("snout", 1, "firm", _ellipsoid(1.1, 0.85), ("head", "body"),
                  {"t": 0.93, "angle": None, "pitch": -6, "by": 0.4}),
    "nose": Kind("nose", 1, "very_firm", lambda n: {"kind": "sphere", "diameter_mm": n}, ("snout", "head", "body"),
                 {"t": 1, "angle": None, "sink_share": 0.3}),
    "neck": Kind("neck", 1, "firm", _capsule(0.35), HOSTS,
                 {"t": 0.94, "angle": 0, "pitch": 65, "sink_share": 0.1}),
    "leg": Kind("leg", 2, "firm", _capsule(0.3), HOSTS,
                {"t": 0.8, "angle": 135, "pitch": -84, "sink_share": 0.15}),
    "arm": Kind("arm", 2, "firm", _capsule(0.28), HOSTS,
                {"t": 0.76, "angle": 110, "pitch": -40, "yaw": 15, "sink_share": 0.12}),
    "foot": Kind("foot", 2, "firm", _capsule(0.4), ("leg", *HOSTS),
                 {"t": 0.9, "angle": 180, "by": 0.3, "sink_share": 0.1}),
    "wing": Kind("wing", 2, "medium", _leaf(0.35, 0.05), HOSTS,
                 {"t": 0.74, "angle": 75, "pitch": -20, "yaw": 180, "sink_share": 0.02, "face": "side"}),
    "tail": Kind("tail", 1, "medium",
                 lambda n: {"kind": "frustum", "diameter1_mm": n * 0.3, "diameter2_mm": n * 0.1, "length_mm": n}, HOSTS,
                 {"t": 0.04, "angle": 0, "pitch": 10, "yaw": 180, "sink_share": 0.12}),
    "shell": Kind("shell", 1, "firm", _ellipsoid(0.7, 0.95), HOSTS, {"t": 0.42, "angle": 0, "by": 0.5, "sink_share": 0.12},
                  True),
    "ball": Kind("ball", 1, "firm", lambda n: {"kind": "sphere", "diameter_mm": n}, HOSTS,
                 {"t": 0.5, "angle": 0, "pitch": 90, "sink_share": 0.1}),
    "tower": Kind("tower", 1, "firm",
                  lambda n: {"kind": "frustum", "diameter1_mm": n * 0.6, "diameter2_mm": n * 0.5, "length_mm": n},
                  ("tower", "base", "body"), {"t": 1, "angle": None, "pitch": 90, "sink_share": 0.02}, True),
    "gill": Kind("gill", 2, "firm", _capsule(0.18), ("head", "body"),
                 {"t": 0.25, "angle": 70, "pitch": 25, "yaw": 130, "sink_share": 0.08}),
    "fin": Kind("fin", 1, "medium", _leaf(0.5, 0.08), HOSTS,
                {"t": 0.5, "angle": 0, "pitch": 60, "yaw": 180, "sink_share": 0.1, "face": "side"}),
    "beak": Kind("beak", 1, "very_firm", lambda n: {"kind": "cone", "diameter_mm": n * 0.35, "length_mm": n},
                 ("head", "body"), {"t": 0.97, "angle": None, "pitch": -4, "sink_share": 0.12}),
    "horn": Kind("horn", 2, "very_firm",
                 lambda n: {"kind": "frustum", "diameter1_mm": n * 0.25, "diameter2_mm": n * 0.08, "length_mm": n},
                 ("head", "body"), {"t": 0.45, "angle": 32, "pitch": 70, "yaw": 160, "sink_share": 0.1}),
    "claw": Kind("claw", 2, "firm", _leaf(0.6, 0.25), ("arm", "head", *HOSTS),
                 {"t": 0.9, "angle": 90, "pitch": -10, "yaw": 15, "sink_share": 0.08, "face": "side"}),
    "stalk": Kind("stalk", 1, "firm", _capsule(0.12), ("stalk", *HOSTS),
                  {"t": 1, "angle": None, "pitch": 90, "sink_share": 0.05}),
    "cap": Kind("cap", 1, "medium", lambda n: {"kind": "dome", "diameter_mm": n, "height_mm": n * 0.45},
                ("stalk", *HOSTS), {"t": 1, "angle": None, "pitch": 90, "sink_share": 0.05}, True),
    "petal": Kind("petal", 6, "medium", _leaf(0.6, 0.08), ("ball", "stalk", *HOSTS),
                  {"t": 0.9, "angle": 0, "pitch": 15, "sink_share": 0.08, "face": "top", "row": {"how": "round"}}),
    "leaf": Kind("leaf", 2, "medium", _leaf(0.45, 0.06), ("stalk", *HOSTS),
                 {"t": 0.4, "angle": 90, "pitch": 20, "yaw": 80, "sink_share": 0.06, "face": "top"}),
    "base": Kind("base", 1, "firm", lambda n: {"kind": "dome", "diameter_mm": n, "height_mm": n * 0.4}, HOSTS,
                 {"t": 0.5, "angle": 180, "pitch": 90}),
}  # fmt: skip

EYE = "eye"  # a bead of that diameter, without wool
STANDING = ("tower", "base", "stalk", "cap")


def root_seat(shape: dict, kind: str) -> dict:
    """The seat of the first part: its lowest point on the ground."""
    pitch = 90 if kind in STANDING else 0
    high = shape.get("height_mm") or shape.get("diameter_mm") or shape.get("thickness_mm") or 10
    if pitch:
        high = shape.get("length_mm") or shape.get("height_mm") or high
    return {"on": None, "centre_mm": round(high / 2, 1), "pitch": pitch, "yaw": 0}
