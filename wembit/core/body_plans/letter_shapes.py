"""Capital letters and figures as outlines to cut or felt: rolled strands of one thickness, laid along the lines of each.

Where a strand closes on itself, as in O, its two ends meet in a slit, so that each outline is one piece without a hole. The
lines are drawn for this house.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import cache
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from shapely.geometry import Polygon

Points = list[tuple[float, float]]
HALF_STRAND, SLIT, PLAIN = 0.13, 0.006, 0.004  # of the height between the lines' ends; how far points may be left out
STEP_DEGREES = 15.0


def _arc(cx: float, cy: float, rx: float, ry: float, begin: float, end: float) -> Points:
    """Points of an ellipse from one angle to another, in degrees, 0 to the right and 90 up."""
    count = max(2, round(abs(end - begin) / STEP_DEGREES))
    turns = [math.radians(begin + (end - begin) * n / count) for n in range(count + 1)]
    return [(cx + rx * math.cos(a), cy + ry * math.sin(a)) for a in turns]


_BOWL = [(0, 0), (0, 1), (0.34, 1), *_arc(0.34, 0.74, 0.27, 0.26, 90, -90), (0, 0.48)]
_ROUND = _arc(0.44, 0.5, 0.44, 0.5, 90, 450)
# the strands of each, from the foot (0) to the head (1) of the letter
STRANDS: dict[str, Sequence[Points]] = {
    "A": ([(0, 0), (0.4, 1), (0.8, 0)], [(0.14, 0.34), (0.66, 0.34)]),
    "B": ([(0, 0), (0, 1), *_arc(0.3, 0.76, 0.26, 0.24, 90, -90), (0, 0.52)],
          [*_arc(0.32, 0.26, 0.3, 0.26, 90, -90), (0, 0)]),
    "C": (_arc(0.42, 0.5, 0.42, 0.5, 48, 312),),
    "D": ([(0, 0), (0, 1), *_arc(0.26, 0.5, 0.44, 0.5, 90, -90), (0, 0)],),
    "E": ([(0.56, 1), (0, 1), (0, 0), (0.56, 0)], [(0, 0.5), (0.46, 0.5)]),
    "F": ([(0.56, 1), (0, 1), (0, 0)], [(0, 0.5), (0.46, 0.5)]),
    "G": (_arc(0.42, 0.5, 0.42, 0.5, 48, 330), [(0.46, 0.42), (0.8, 0.42), (0.8, 0.22)]),
    "H": ([(0, 0), (0, 1)], [(0.64, 0), (0.64, 1)], [(0, 0.5), (0.64, 0.5)]),
    "I": ([(0, 0), (0, 1)],),
    "J": ([(0.46, 1), *_arc(0.22, 0.25, 0.24, 0.25, 0, -150)],),
    "K": ([(0, 0), (0, 1)], [(0.62, 1), (0, 0.4)], [(0.18, 0.58), (0.64, 0)]),
    "L": ([(0, 1), (0, 0), (0.54, 0)],),
    "M": ([(0, 0), (0, 1), (0.44, 0.28), (0.88, 1), (0.88, 0)],),
    "N": ([(0, 0), (0, 1), (0.66, 0), (0.66, 1)],),
    "O": (_ROUND,),
    "P": (_BOWL,),
    "Q": (_ROUND, [(0.52, 0.3), (0.82, 0)]),
    "R": (_BOWL, [(0.28, 0.48), (0.62, 0)]),
    "S": ([*_arc(0.32, 0.75, 0.3, 0.25, 30, 270), *_arc(0.32, 0.25, 0.32, 0.25, 90, -150)],),
    "T": ([(0, 1), (0.7, 1)], [(0.35, 1), (0.35, 0)]),
    "U": ([(0, 1), *_arc(0.33, 0.33, 0.33, 0.33, 180, 360), (0.66, 1)],),
    "V": ([(0, 1), (0.38, 0), (0.76, 1)],),
    "W": ([(0, 1), (0.27, 0), (0.54, 0.78), (0.81, 0), (1.08, 1)],),
    "X": ([(0, 0), (0.68, 1)], [(0, 1), (0.68, 0)]),
    "Y": ([(0, 1), (0.36, 0.48), (0.72, 1)], [(0.36, 0.48), (0.36, 0)]),
    "Z": ([(0, 1), (0.62, 1), (0, 0), (0.64, 0)],),
    "0": (_arc(0.35, 0.5, 0.35, 0.5, 90, 450),),
    "1": ([(0, 0.76), (0.26, 1), (0.26, 0)],),
    "2": ([*_arc(0.3, 0.7, 0.3, 0.3, 160, -35), (0, 0), (0.6, 0)],),
    "3": ([*_arc(0.28, 0.75, 0.28, 0.25, 150, -90), *_arc(0.28, 0.25, 0.32, 0.25, 90, -150)],),
    "4": ([(0.46, 0), (0.46, 1), (0, 0.28), (0.66, 0.28)],),
    "5": ([(0.54, 1), (0.08, 1), *_arc(0.28, 0.32, 0.3, 0.32, 130, -150)],),
    "6": (_arc(0.32, 0.31, 0.32, 0.31, 90, 450), _arc(0.5, 0.31, 0.5, 0.69, 105, 180)),
    "7": ([(0, 1), (0.6, 1), (0.2, 0)],),
    "8": (_arc(0.32, 0.76, 0.27, 0.24, 90, 450), _arc(0.32, 0.26, 0.32, 0.26, 90, 450)),
    "9": (_arc(0.32, 0.69, 0.32, 0.31, 90, 450), _arc(0.14, 0.69, 0.5, 0.69, -75, 0)),
    "&": ([(0.76, 0), (0.17, 0.68), *_arc(0.36, 0.79, 0.2, 0.21, 205, -45), *_arc(0.3, 0.25, 0.3, 0.25, 140, 335),
           (0.74, 0.44)],),
}  # fmt: skip


@cache
def letter(char: str) -> tuple[tuple[float, float], ...]:
    """The outline of a letter one high, x to the right from its left edge, y up from its foot. Raises KeyError."""
    from shapely import affinity
    from shapely.geometry import LineString
    from shapely.ops import unary_union

    face = unary_union([LineString(strand).buffer(HALF_STRAND, quad_segs=4) for strand in STRANDS[char]])
    for hole in list(face.interiors):
        face = _opened(face, hole)
    face = face.simplify(PLAIN)
    left, foot, _, head = face.bounds
    one_high = affinity.scale(
        affinity.translate(face, -left, -foot), 1 / (head - foot), 1 / (head - foot), origin=(0, 0)
    )
    points = list(one_high.exterior.coords)[:-1]
    return tuple((round(x, 4), round(y, 4)) for x, y in points)


def _opened(face: Polygon, hole) -> Polygon:  # type: ignore[no-untyped-def]
    """The face with a slit from a hole out, where it is thinnest: there the ends of a strand meet."""
    from shapely.geometry import LineString
    from shapely.ops import nearest_points

    one, two = nearest_points(hole, face.exterior)
    along = (two.x - one.x, two.y - one.y)
    begin, end = ((at.x + way * along[0] / 2, at.y + way * along[1] / 2) for at, way in ((one, -1), (two, 1)))
    cut = face.difference(LineString([begin, end]).buffer(SLIT, cap_style="flat"))
    return max(getattr(cut, "geoms", [cut]), key=lambda piece: piece.area)


def wide(char: str) -> float:
    """How wide a letter is, one high. Raises KeyError."""
    return max(x for x, _ in letter(char))
