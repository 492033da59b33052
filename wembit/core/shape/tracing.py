"""From a traced outline to a shape: a silhouette turned round its axis, a flat piece, or a wire with its bends.

A tracing begins at the part's root. Its axis goes from there to the point that lies farthest away.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from shapely.geometry import LineString, Polygon

from wembit.core.errors import BadInput

from .polygon import crosses_itself

Points = Sequence[tuple[float, float]]
NEAREST = 1 / 400  # stations closer together than this share of the length are one
LEAST_MM, MOST_MM = 0.1, 10_000.0


def scale_of(one: tuple[float, float], two: tuple[float, float], length_mm: float) -> float:
    """Millimetres a unit of the picture, from a distance in it. Raises `BadInput` where the marks lie on each other."""
    apart = math.dist(one, two)
    if apart < 1e-6:
        raise BadInput("marks", "must lie apart", None)
    return length_mm / apart


def along_axis(points: Points) -> np.ndarray:
    """The points with the root at 0, 0 and the axis along x: (n, 2)."""
    path = np.array(points, dtype=float)
    path = path - path[0]
    far = path[int(np.argmax(np.hypot(path[:, 0], path[:, 1])))]
    length = float(np.hypot(*far))
    if length < LEAST_MM:
        raise BadInput("points", "must be farther apart than 0.1 mm", round(length, 3))
    if length > MOST_MM:
        raise BadInput("points", "must not be farther apart than 10 m", round(length))
    c, s = far / length
    return path @ np.array([[c, -s], [s, c]])


def outline(points: Points) -> np.ndarray:
    """A closed outline along its axis. Raises `BadInput` for fewer than 3 points, or one that crosses itself."""
    if len(points) < 3:
        raise BadInput("points", "an outline needs at least 3 points", len(points))
    path = along_axis(points)
    if crosses_itself(tuple(map(tuple, path.tolist()))):
        raise BadInput("points", "the outline crosses itself; drag the crossing points apart", None)
    if Polygon(path).area <= 0:
        raise BadInput("points", "the outline encloses nothing", None)
    return path


def silhouette(points: Points, depth_ratio: float = 1.0) -> dict:
    """The traced outline as widths at stations along its axis: at every point of it, and at both ends."""
    rim = outline(points)
    shape = Polygon(rim)
    left, low, right, high = shape.bounds
    nearest = NEAREST * (right - left)
    stations: list[list[float]] = []
    for x in sorted({left, right, *(float(x) for x in rim[:, 0])}):
        nudge = 1e-6 * (right - left)
        inner = min(max(x, left + nudge), right - nudge)
        cut = LineString([(inner, low - 1), (inner, high + 1)]).intersection(shape)
        width = cut.bounds[3] - cut.bounds[1] if not cut.is_empty else 0.0
        if stations and x - left - stations[-1][0] < nearest:  # one station, as wide as the wider
            width = max(width, stations[-1][1])
            if len(stations) == 1:
                stations[0][1] = round(width, 3)
                continue
            stations.pop()
        stations.append([round(x - left, 3), round(width, 3)])
    return {"kind": "silhouette", "stations": stations, "depth_ratio": depth_ratio}


def flat_piece(points: Points, thickness_mm: float) -> dict:
    """The traced outline cut from a sheet."""
    rim = outline(points)
    return {
        "kind": "slab",
        "outline": [[round(x, 3), round(y, 3)] for x, y in rim.tolist()],
        "thickness_mm": thickness_mm,
    }


def wire(points: Points, diameter_mm: float, wire_mm: float) -> tuple[dict, float, list[list[float]]]:
    """A sleeve along the traced line: its shape, the pitch of its first stretch (degrees up from level, x to the right)
    and its bends as (length, turn from that pitch).
    """
    if len(points) < 2:
        raise BadInput("points", "a wire needs at least 2 points", len(points))
    if wire_mm >= diameter_mm:
        raise BadInput("wire_mm", f"must be thinner than its sleeve, {diameter_mm:g}", wire_mm)
    steps = np.diff(np.array(points, dtype=float), axis=0)
    lengths = np.hypot(steps[:, 0], steps[:, 1])
    if (lengths < LEAST_MM).any():
        raise BadInput("points", "must be farther apart than 0.1 mm", None)
    pitches = np.degrees(np.arctan2(steps[:, 1], steps[:, 0]))
    turns = (pitches - pitches[0] + 180) % 360 - 180
    bends = [[round(float(length), 3), round(float(turn), 2)] for length, turn in zip(lengths, turns, strict=True)]
    shape = {
        "kind": "wrap",
        "length_mm": round(float(lengths.sum()), 3),
        "diameter_mm": diameter_mm,
        "wire_mm": wire_mm,
    }
    return shape, float(pitches[0]), bends if len(bends) > 1 else []
