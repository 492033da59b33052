"""Markings drawn by hand, as they lie on a placed piece: pieces of skin, and what of them faces the viewer."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from wembit.core.pose.gaze import Gaze
from wembit.core.pose.mesh import together
from wembit.core.pose.placing import Placed
from wembit.core.pose.skin_marks import Drawn, Spot, dense, rim_of
from wembit.core.pose.slab_marks import sheets
from wembit.core.shape.solids import Slab

from .marks import skin_normal

ROWS, COLUMNS = 14, 6  # of a patch


def rims(piece: Placed, mark: Drawn) -> list[tuple[np.ndarray, np.ndarray]]:
    """The marking in pieces of skin, each a rim (n, 3) in mm with the way outward there: small four-cornered ones on a round
    skin, whole ones on a flat face.
    """
    if isinstance(piece.part.shape, Slab):
        return sheets(piece, mark.points, mark.width_mm, both=mark.both)
    return [
        rim
        for points in mark.flanks()
        for rim in (_ribbon(piece, points, mark.width_mm) if mark.width_mm else _inside(piece, points))
    ]


def _ribbon(piece: Placed, points: Sequence[Spot], width_mm: float) -> list[tuple[np.ndarray, np.ndarray]]:
    places = dense(points)
    found = [skin_normal(piece, t, angle) for t, angle in places]
    middles, outs = (np.array(each) for each in zip(*found, strict=True))
    ways = np.gradient(middles, axis=0) if len(middles) > 1 else np.zeros_like(middles)
    aside = np.cross(outs, ways)
    aside = aside / np.maximum(np.linalg.norm(aside, axis=1, keepdims=True), 1e-9) * width_mm / 2
    left, right = middles + aside, middles - aside
    return [(np.array([left[k], left[k + 1], right[k + 1], right[k]]), outs[k]) for k in range(len(places) - 1)]


def _inside(piece: Placed, points: Sequence[Spot]) -> list[tuple[np.ndarray, np.ndarray]]:
    """The patch in rows across the axis, each from its first to its last angle."""
    rim = rim_of(points)
    if rim.is_empty:
        return []
    low, _, high, _ = rim.bounds
    rows = []
    for t in np.linspace(low, high, ROWS + 1):
        inner = min(max(float(t), low + 1e-4), high - 1e-4)
        spans = rim.intersection(LineString([(inner, -1e4), (inner, 1e4)])).bounds
        if spans:
            angles = np.linspace(spans[1], spans[3], COLUMNS + 1)
            rows.append([skin_normal(piece, float(t), float(angle)) for angle in angles])
    found = []
    for one, two in pairwise(rows):
        for k in range(COLUMNS):
            corners = np.array([one[k][0], two[k][0], two[k + 1][0], one[k + 1][0]])
            found.append((corners, one[k][1]))
    return found


def drawn_on(piece: Placed, mark: Drawn, gaze: Gaze) -> BaseGeometry:
    """What of a marking faces the viewer, as a geometry."""
    seen = [Polygon(gaze.flat(corners)).buffer(0) for corners, out in rims(piece, mark) if float(out @ gaze.near) > 0]
    return together([each for each in seen if not each.is_empty])
