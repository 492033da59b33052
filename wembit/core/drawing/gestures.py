"""What a finger drew on a skin: a press is a spot, a stroke a line, a way that closes a patch; as the rule of a detail."""

from __future__ import annotations

import math
from collections.abc import Sequence

from shapely.geometry import LineString, Polygon

from wembit.core.pose.gaze import Gaze
from wembit.core.pose.placing import Placed
from wembit.core.pose.skin_marks import rim_of
from wembit.core.pose.slab_marks import round_spot, touched_face
from wembit.core.pose.touching import touched
from wembit.core.shape.solids import Slab

MOST_POINTS, STEP_MM = 60, 0.6  # of a marking, and how closely it keeps to the finger's way
PRESS_MM, CLOSED_SHARE, LEAST_MM2 = 2.5, 0.3, 12.0  # a press; a loop's gap as a share of its way; a loop worth the name
SPOT_SHARE, LINE_SHARE, LEAST_WIDE_MM = 0.18, 0.08, 1.0  # of the part's thickness, to begin with
Point = tuple[float, float]


def rule_of(piece: Placed, gaze: Gaze, way: Sequence[Point], *, both: bool) -> dict[str, object]:
    """What the finger drew, as the rule of a detail."""
    shape = piece.part.shape
    line = LineString(way) if len(way) > 1 else None
    low = line.bounds if line else (0, 0, 0, 0)
    thick = min(shape.longest_mm, 2 * max(shape.half_widths(0.5)))
    if line is None or max(low[2] - low[0], low[3] - low[1]) < PRESS_MM:
        wide = max(LEAST_WIDE_MM, SPOT_SHARE * thick)
        if isinstance(shape, Slab):
            return _told(round_spot(shape, touched_face(piece, gaze, way[:1])[0], wide), both=both)
        t, angle = touched(piece, gaze, way[:1])[0]
        return _patch(t, angle, math.pi / 4 * wide**2, both=both)
    gap = LineString([way[0], way[-1]]).length
    is_loop = gap < CLOSED_SHARE * line.length and Polygon(way).buffer(0).area > LEAST_MM2
    wide = max(LEAST_WIDE_MM, LINE_SHARE * thick)
    near, short = STEP_MM, line.simplify(STEP_MM)
    while len(short.coords) > MOST_POINTS:
        near *= 1.5
        short = line.simplify(near)
    points = (touched_face if isinstance(shape, Slab) else touched)(piece, gaze, [(x, y) for x, y in short.coords])
    rule = _told(points, both=both)
    return rule if is_loop and rim_of(points).area > 0 else {**rule, "width_mm": round(wide, 1)}


def _told(points: Sequence[Point], *, both: bool) -> dict[str, object]:
    return {"drawn": [[round(t, 4), round(angle, 2)] for t, angle in points], "both": both}


def _patch(t: float, angle: float, area: float, *, both: bool) -> dict[str, object]:
    area = 2 * area if both else area  # all pieces together
    rule: dict[str, object] = {"area_mm2": round(area, 1), "t": round(t, 3), "angle": round(angle % 360, 1)}
    return {**rule, "pieces": 2} if both else rule
