"""Markings drawn by hand on a flat piece: where a finger touches its face, and what of the face lies under a line or a loop.

A place is told as on a round skin, by a share of the length and degrees round from the upper edge: the cosine goes across the
outline, its sine says which face. So it keeps to its place of the outline when the piece grows.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

import numpy as np
from shapely.geometry import LineString, Point, Polygon, box
from shapely.geometry.base import BaseGeometry
from shapely.ops import nearest_points

from wembit.core.shape.solids import Slab

from .gaze import Gaze
from .mesh import slab_directions
from .placing import Placed

Spot = tuple[float, float]
SPOT_RIM = 16  # points of a spot
EDGE_ON = 1e-3  # a face so thin as it is seen is seen by its edge


def flat_way(shape: Slab, points: Sequence[Spot]) -> list[tuple[float, float]]:
    """The points in the plane of the outline, in mm."""
    low, bottom, high, top = Polygon(shape.outline).bounds
    middle, half = (bottom + top) / 2, (top - bottom) / 2
    return [(low + t * (high - low), middle + half * math.cos(math.radians(angle))) for t, angle in points]


def covered(shape: Slab, points: Sequence[Spot], width_mm: float) -> BaseGeometry:
    """What of one face lies under a line of that width, or inside the loop where it has none."""
    way, face = flat_way(shape, points), Polygon(shape.outline).buffer(0)
    if width_mm:
        drawn = LineString(way).buffer(width_mm / 2)
    else:
        drawn = Polygon(way).buffer(0) if len(way) > 2 else Polygon()
    return drawn.intersection(face)


def sheets(
    piece: Placed, points: Sequence[Spot], width_mm: float, *, both: bool
) -> list[tuple[np.ndarray, np.ndarray]]:
    """Its rims on the face, or on both, each (n, 3) in mm with the way outward there."""
    shape = piece.part.shape
    assert isinstance(shape, Slab)
    across, normal = slab_directions(piece)
    front = _front(piece, normal) * (1 if sum(math.sin(math.radians(angle)) for _, angle in points) >= 0 else -1)
    found = []
    for rim in _rims(covered(shape, points, width_mm)):
        flat = piece.joints[0] + rim[:, :1] * piece.frames[0].axis + rim[:, 1:] * across
        found += [(flat + out * shape.thickness_mm / 2, out) for out in ((front, -front) if both else (front,))]
    return found


def touched_face(piece: Placed, gaze: Gaze, points: Sequence[tuple[float, float]]) -> list[Spot]:
    """Where each point of the picture, right and up in mm, lies in the plane of the face that is seen."""
    shape = piece.part.shape
    assert isinstance(shape, Slab)
    across, normal = slab_directions(piece)
    out = normal if float(normal @ gaze.near) >= 0 else -normal
    origin = gaze.flat(piece.joints[0] + out * shape.thickness_mm / 2)
    ways = np.column_stack([gaze.flat(piece.frames[0].axis), gaze.flat(across)])
    found = np.linalg.lstsq(ways, (np.array(points, dtype=float) - origin).T, rcond=EDGE_ON)[0].T
    return spots_of(shape, found.tolist(), 1 if float(out @ _front(piece, normal)) > 0 else -1)


def round_spot(shape: Slab, middle: Spot, wide_mm: float) -> list[Spot]:
    """The rim of a round spot about a place of a face, or about the nearest place of its outline."""
    at = nearest_points(Polygon(shape.outline).buffer(0), Point(flat_way(shape, [middle])[0]))[0]
    turns = np.linspace(0, 2 * math.pi, SPOT_RIM, endpoint=False)
    rim = [(at.x + wide_mm / 2 * math.cos(turn), at.y + wide_mm / 2 * math.sin(turn)) for turn in turns]
    return spots_of(shape, rim, 1 if middle[1] >= 0 else -1)


def spots_of(shape: Slab, way: Sequence[Sequence[float]], side: int) -> list[Spot]:
    """Points in the plane of the outline, in mm, as places of the first face (1) or the other (-1)."""
    low, bottom, high, top = Polygon(shape.outline).bounds
    found = []
    for x, y in way:
        across = (y - (bottom + top) / 2) / ((top - bottom) / 2 or 1.0)
        t = min(1.0, max(0.0, (x - low) / ((high - low) or 1.0)))
        found.append((t, side * math.degrees(math.acos(min(1.0, max(-1.0, across))))))
    return found


def _front(piece: Placed, normal: np.ndarray) -> np.ndarray:
    """The face that counts as the first: of a pair that faces the sides, the outer one of each."""
    return normal * (piece.mirror if piece.seat.face == "side" else 1)


def _rims(found: BaseGeometry) -> Iterator[np.ndarray]:
    """The rims of a geometry, (n, 2) each; what has holes is cut through them."""
    for part in getattr(found, "geoms", [found]):
        if part.geom_type != "Polygon" or part.is_empty:
            continue
        if part.interiors:
            low, bottom, high, top = part.bounds
            x = part.interiors[0].centroid.x
            for half in (box(low, bottom, x, top), box(x, bottom, high, top)):
                yield from _rims(part.intersection(half))
        else:
            yield np.array(part.exterior.coords[:-1])
