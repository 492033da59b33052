"""Outlines of cutters and stencils to pick from, in a box one unit wide; and what a needle's blade looks like across."""

from __future__ import annotations

import math
from collections.abc import Callable

Points = tuple[tuple[float, float], ...]

# Across the blade in mm by gauge, and the length of a felting needle in mm; from memory
BLADE_MM = {32: 1.0, 36: 0.75, 38: 0.65, 40: 0.55, 42: 0.45}
NEEDLE_MM = 80.0
SECTIONS = {"triangle": 3, "star": 4, "round": 24, "twisted": 3}  # corners of the blade across


def _round(count: int, radius: Callable[[float], float]) -> Points:
    turns = [2 * math.pi * n / count - math.pi / 2 for n in range(count)]
    return tuple((round(radius(a) * math.cos(a), 4), round(radius(a) * math.sin(a), 4)) for a in turns)


def _heart() -> Points:
    """The heart curve of sines and cosines, 16 sin³."""
    turns = [2 * math.pi * n / 48 for n in range(48)]
    return tuple(
        (
            round(math.sin(a) ** 3 / 2, 4),
            round(-(13 * math.cos(a) - 5 * math.cos(2 * a) - 2 * math.cos(3 * a) - math.cos(4 * a)) / 32, 4),
        )
        for a in turns
    )


def _leaf(tall: float) -> Points:
    """Two arcs that meet in points."""
    steps = [n / 16 for n in range(17)]
    right = [(math.sin(math.pi * s) / 2, (s - 0.5) * tall) for s in steps]
    return tuple((round(x, 4), round(y, 4)) for x, y in [*right, *[(-x, y) for x, y in right[-2:0:-1]]])


def _drop() -> Points:
    turns = [2 * math.pi * n / 48 for n in range(48)]
    return tuple((round(math.sin(a) * math.sin(a / 2) ** 1.5 / 1.52, 4), round(-math.cos(a) * 0.75, 4)) for a in turns)


def _moon() -> Points:
    outer = [math.radians(a) for a in range(-53, 234, 11)]
    inner = [math.radians(a) for a in range(206, -27, -11)]
    away = [(math.cos(a) / 2, math.sin(a) / 2) for a in outer]
    back = [(math.cos(a) * 0.36, math.sin(a) * 0.36 - 0.2) for a in inner]
    return tuple((round(x, 4), round(y, 4)) for x, y in away + back)


def _one_wide(points: Points) -> Points:
    """The outline as large as makes it one unit wide."""
    wide = max(x for x, _ in points) - min(x for x, _ in points)
    return tuple((round(x / wide, 4), round(y / wide, 4)) for x, y in points)


CUTTERS: dict[str, Points] = {
    "disc": _round(36, lambda a: 0.5),
    "oval": tuple((x, y * 1.5) for x, y in _round(36, lambda a: 0.5)),
    "drop": _one_wide(_drop()),
    "leaf": _leaf(2.0),
    "ear": _leaf(3.2),
    "heart": _heart(),
    "star": _one_wide(_round(10, lambda a: 0.5 if round(10 * (a + math.pi / 2) / (2 * math.pi)) % 2 == 0 else 0.22)),
    "moon": _one_wide(_moon()),
    "square": ((-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5)),
}


def scaled(name: str, wide_mm: float) -> Points:
    """The outline of that name, so many mm wide. Raises KeyError."""
    return tuple((round(x * wide_mm, 2), round(y * wide_mm, 2)) for x, y in CUTTERS[name])


def blade(section: str, across_mm: float) -> Points:
    """The blade of a needle across, in mm. Raises KeyError."""
    corners = SECTIONS[section]
    if section == "star":
        return tuple(
            (round(x * across_mm, 3), round(y * across_mm, 3))
            for x, y in _round(8, lambda a: 0.5 if round(8 * (a + math.pi / 2) / (2 * math.pi)) % 2 == 0 else 0.24)
        )
    return tuple((round(x * across_mm, 3), round(y * across_mm, 3)) for x, y in _round(corners, lambda a: 0.5))


def blade_mm(gauge: float) -> float:
    """Across the blade in mm: between the gauges of the table in a straight line, beyond them level."""
    known = sorted(BLADE_MM)
    below = max((g for g in known if g <= gauge), default=known[0])
    above = min((g for g in known if g >= gauge), default=known[-1])
    if below == above:
        return BLADE_MM[below]
    share = (gauge - below) / (above - below)
    return BLADE_MM[below] + share * (BLADE_MM[above] - BLADE_MM[below])
