"""Markings drawn by hand on a skin: a line of some width or a patch inside a loop, as shares of the axis and angles round it,
so that they follow the part when it grows. A mirrored one lies on the other flank as well.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from wembit.core.shape.solids import Slab, Solid

from .placing import Seat, axis_length, section
from .slab_marks import covered, flat_way

Spot = tuple[float, float]  # a share of the axis, and degrees round from the top
BETWEEN = 0.03  # of the axis: a drawn line is told at least so often
DEGREES = 8.0
LEAST_RIM = 2  # points that make no loop yet
SLOPE_STEP = 0.01


@dataclass(frozen=True)
class Drawn:
    """`width_mm`: of a line; 0 for a patch whose rim the points are."""

    paint: str
    points: tuple[Spot, ...]
    width_mm: float = 0.0
    both: bool = False

    def flanks(self) -> list[tuple[Spot, ...]]:
        """Its points on each flank on which it lies."""
        return [self.points, tuple((t, -angle) for t, angle in self.points)] if self.both else [self.points]


def area_of(shape: Solid, seat: Seat, mark: Drawn) -> float:
    """mm² of skin that it takes on one piece, both flanks (of a flat piece, both faces) together."""
    if isinstance(shape, Slab):
        return covered(shape, mark.points, mark.width_mm).area * len(mark.flanks())
    one = _line_area(shape, seat, mark) if mark.width_mm else _loop_area(shape, seat, mark.points)
    return one * len(mark.flanks())


def length_of(shape: Solid, seat: Seat, points: Sequence[Spot]) -> float:
    """How long a line through the points is on the skin, in mm."""
    if isinstance(shape, Slab):
        return float(LineString(flat_way(shape, points)).length)
    flat = np.array([_unplaced(shape, seat, t, angle) for t, angle in dense(points)])
    return float(np.linalg.norm(np.diff(flat, axis=0), axis=1).sum())


def _line_area(shape: Solid, seat: Seat, mark: Drawn) -> float:
    return (length_of(shape, seat, mark.points) + mark.width_mm) * mark.width_mm  # its ends are round


def _loop_area(shape: Solid, seat: Seat, points: Sequence[Spot]) -> float:
    """The skin inside a loop: its width at each t times the way round and along."""
    rim, length = rim_of(points), axis_length(shape, seat)
    if rim.is_empty or not length:
        return 0.0
    low, _, high, _ = rim.bounds
    edges = np.linspace(max(0.0, low), min(1.0, high), 61)
    area = 0.0
    for one, two in pairwise(edges.tolist()):
        t = (one + two) / 2
        degrees = rim.intersection(LineString([(t, -1e4), (t, 1e4)])).length
        lean = (_radius(shape, seat, t + SLOPE_STEP) - _radius(shape, seat, t - SLOPE_STEP)) / (2 * SLOPE_STEP * length)
        area += math.radians(degrees) * _radius(shape, seat, t) * math.hypot(1, lean) * (two - one) * length
    return area


def rim_of(points: Sequence[Spot]) -> BaseGeometry:
    """The loop in the plane of shares and degrees; empty where the points make none."""
    return Polygon(points).buffer(0) if len(points) > LEAST_RIM else Polygon()


def _radius(shape: Solid, seat: Seat, t: float) -> float:
    return sum(section(shape, seat, t)) / 2


def _unplaced(shape: Solid, seat: Seat, t: float, angle: float) -> tuple[float, float, float]:
    """A point of the skin of a straight part by itself."""
    top, side = section(shape, seat, t)
    turn = math.radians(angle)
    return t * axis_length(shape, seat), top * math.cos(turn), side * math.sin(turn)


def dense(points: Sequence[Spot]) -> list[Spot]:
    """The points with others between them, so that a line keeps to the skin."""
    found = [points[0]]
    for (t, angle), (t2, angle2) in pairwise(points):
        steps = max(1, math.ceil(max(abs(t2 - t) / BETWEEN, abs(angle2 - angle) / DEGREES)))
        found += [(t + (t2 - t) * k / steps, angle + (angle2 - angle) * k / steps) for k in range(1, steps + 1)]
    return found
