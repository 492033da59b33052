"""Whether a figure stands: the centre of its weight over the ground that its feet span."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from shapely.geometry import MultiPoint, Point, Polygon

from wembit.core.shape import solids

from .mesh import UP, surface
from .placing import Placed

TOUCHES_MM = 2.0  # what is within this of the lowest point stands on the ground; felt gives way so much
WIRED_TOUCHES_MM = 5.0  # a wired limb is bent until it does
FLAT_FOOT_MM = 1.0


@dataclass(frozen=True)
class Standing:
    """`centre`: (x, y) of the weight over the ground in mm; `margin_mm`: how far inside the feet's span it lies, below
    zero how far outside; `way`: forward, backward or sideways, where it tips, empty where it stands; `span`: the
    corners of the ground that the feet span.
    """

    centre: tuple[float, float]
    margin_mm: float
    way: str
    span: tuple[tuple[float, float], ...]

    @property
    def stands(self) -> bool:
        return self.margin_mm >= 0


def standing(pieces: Sequence[Placed], grams: Mapping[str, float]) -> Standing | None:
    """How a figure stands; `grams`: the weight of one piece by part name. None where nothing weighs.

    The weight of a piece counts at the middle of its skin; its feet are where the skin is within 2 mm of the ground, or
    5 mm on a wire, which can be bent.
    """
    skins = [(piece, surface(piece).reshape(-1, 3)) for piece in pieces]
    heavy = [(grams.get(piece.name, 0.0), points.mean(axis=0)) for piece, points in skins]
    total = sum(weight for weight, _ in heavy)
    if total <= 0:
        return None
    centre = sum(weight * middle for weight, middle in heavy) / total
    solid = [points for piece, points in skins if len(points) > 8]
    ground = min(float((points @ UP).min()) for points in solid)
    feet = np.concatenate(
        [
            points[(points @ UP) <= ground + (WIRED_TOUCHES_MM if _wired(piece) else TOUCHES_MM)]
            for piece, points in skins
            if len(points) > 8
        ]
    )
    span = MultiPoint(feet[:, :2]).convex_hull.buffer(FLAT_FOOT_MM, join_style="mitre")
    spot = Point(centre[0], centre[1])
    away = span.exterior.distance(spot)
    inside = span.contains(spot)
    way = "" if inside else _way(span, spot)
    corners = tuple((float(x), float(y)) for x, y in span.exterior.coords[:-1])
    return Standing((float(centre[0]), float(centre[1])), away if inside else -away, way, corners)


def _wired(piece: Placed) -> bool:
    return isinstance(piece.part.shape, solids.Wrap)


def _way(span: Polygon, spot: Point) -> str:
    """Where it falls: away from the nearest ground that bears it."""
    near = span.exterior.interpolate(span.exterior.project(spot))
    along, across = spot.x - near.x, spot.y - near.y
    if math.fabs(along) < math.fabs(across):
        return "sideways"
    return "forward" if along > 0 else "backward"
