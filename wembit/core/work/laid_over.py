"""The plan's outline laid over a measured piece: at the same centre, along the same length, whichever way round fits best."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from .by_photo import Measured

Array = NDArray[np.float64]
WAYS = ((1, 1), (-1, 1), (1, -1), (-1, -1))  # round, upside down, mirrored


def laid_over(piece: Measured, rings: Sequence[Sequence[tuple[float, float]]]) -> tuple[list[Array], float]:
    """The outline's rings, in mm around any middle, as points (n, 2) in the picture's pixels; and the share of the piece that
    lies within the plan.
    """
    outline = [np.asarray(ring, dtype=float) for ring in rings]
    points = np.vstack(outline)
    middle = (points.min(axis=0) + points.max(axis=0)) / 2
    along = np.array([np.cos(piece.turned), np.sin(piece.turned)])
    across = np.array([-along[1], along[0]])
    lying = np.ptp(points, axis=0)
    order = [0, 1] if lying[0] >= lying[1] else [1, 0]
    best: tuple[float, list[Array]] = (-1.0, [])
    for ways in WAYS:
        placed = [
            np.asarray(piece.centre) + ((ring - middle)[:, order] * ways) @ np.stack([along, across])
            for ring in outline
        ]
        within = _within(placed, piece.points)
        if within > best[0] + 1e-9:
            best = (within, placed)
    return [piece.in_pixels(ring) for ring in best[1]], best[0]


def _within(rings: Sequence[Array], points: Array) -> float:
    whole = shapely.union_all([Polygon(ring).buffer(0) for ring in rings if len(ring) > 2])
    return float(shapely.contains_xy(whole, points).mean())
