"""Each form drawn as what it is: a silhouette, inner lines, its area, and how high a share of it reaches.

Drawings stand in a box of 100 × 100; a lot is drawn so large that the silhouette's area is its grams at the shelf's scale.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache
from typing import Any

import numpy as np
import shapely
from shapely.geometry import LineString, Point, Polygon, box
from shapely.geometry.base import BaseGeometry

LEVELS = 40


@dataclass(frozen=True)
class Drawing:
    """`outline` and `lines` are path data; `box` is left, top, width, height of the silhouette; `area` in box units²."""

    key: str
    outline: str
    lines: str
    box: tuple[float, float, float, float]
    area: float
    levels: tuple[float, ...]

    def level(self, share: float) -> float:
        """The y above which the lower `share` of the silhouette's area lies."""
        return float(np.interp(share, np.linspace(0, 1, LEVELS + 1), self.levels))


def _path(shape: Any) -> str:
    parts = getattr(shape, "geoms", [shape])
    rings = [ring for part in parts for ring in (part.exterior, *part.interiors)]
    return "".join("M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in ring.coords[:-1]) + "Z" for ring in rings)


def _way(points: Any) -> str:
    return "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points)


def _spiral(turns: float, inner: float, outer: float, wobble: float = 0.0) -> str:
    points = []
    for k in range(int(turns * 20) + 1):
        share = k / (turns * 20)
        r = inner + (outer - inner) * share
        r += wobble * math.sin(5 * share * turns)
        a = 2 * math.pi * turns * share
        points.append((50 + r * math.cos(a), 50 + r * math.sin(a)))
    return _way(points)


def _wave(x: float, top: float, bottom: float, swing: float, bends: int) -> list[tuple[float, float]]:
    steps = 24
    return [
        (x + swing * math.sin(2 * math.pi * bends * k / steps), top + (bottom - top) * k / steps)
        for k in range(steps + 1)
    ]


def _discs(spots: Any) -> BaseGeometry:
    return shapely.union_all([Point(x, y).buffer(r, quad_segs=8) for x, y, r in spots])


def _fleece() -> Polygon:
    """An open heap of pointed locks, leaning outwards."""
    tips = [(2, 52), (14, 36), (27, 24), (40, 14), (53, 10), (65, 16), (77, 26), (88, 40), (98, 56)]
    rim: list[tuple[float, float]] = [(4, 94)]
    for index, tip in enumerate(tips):
        rim.append(tip)
        if index + 1 < len(tips):
            following = tips[index + 1]
            rim.append(((tip[0] + following[0]) / 2, (tip[1] + following[1]) / 2 + 24))
    return Polygon([*rim, (96, 94)]).buffer(-1.5).buffer(3)


def _shapes() -> dict[str, tuple[BaseGeometry, str]]:
    """Silhouette and inner lines of each form and notion."""
    coil = Point(50, 50).buffer(48, quad_segs=16)
    loose = Polygon(
        [
            (50 + (45 + 2.2 * math.sin(7 * a)) * math.cos(a), 50 + (45 + 2.2 * math.sin(7 * a)) * math.sin(a))
            for a in np.linspace(0, 2 * math.pi, 60, endpoint=False)
        ]
    ).union(LineString([(52, 92), (76, 95), (96, 93)]).buffer(4))
    sheet = box(4, 26, 96, 96).buffer(-5).buffer(5).union(Polygon([(6, 30), (22, 18), (98, 18), (96, 40)]))
    cloud = _discs([(24, 70, 20), (44, 52, 24), (68, 58, 23), (82, 74, 16), (50, 74, 24)])
    curls = [_wave(x, 12 + abs(x - 50) * 0.25, 96, 4.5, 4) for x in (26, 38, 50, 62, 74)]
    locks = shapely.union_all([LineString(way).buffer(6.5, quad_segs=4) for way in curls]).union(box(24, 48, 76, 57))
    grains = [(20, 84, 11), (42, 86, 10), (63, 84, 12), (83, 87, 9), (31, 66, 10), (52, 67, 11), (73, 66, 9), (42, 48, 9),
              (62, 48, 10), (51, 31, 8)]  # fmt: skip
    fleece = _fleece()
    heap = Polygon([(3, 96), (10, 72), (24, 78), (32, 52), (46, 62), (57, 40), (68, 60), (80, 54), (88, 76), (98, 96)])
    cushion = Polygon(
        [
            (4, 34),
            (14, 40),
            (50, 33),
            (86, 40),
            (96, 34),
            (92, 64),
            (97, 92),
            (86, 88),
            (50, 95),
            (14, 88),
            (3, 92),
            (8, 64),
        ]
    )
    ring = Point(50, 50).buffer(46).difference(Point(50, 50).buffer(26))
    noose = (
        Point(50, 30).buffer(22).difference(Point(50, 30).buffer(15)).union(LineString([(50, 50), (50, 98)]).buffer(4))
    )
    twig = (
        LineString([(6, 66), (36, 56), (66, 62), (95, 50)]).buffer(6).union(LineString([(60, 60), (74, 34)]).buffer(4))
    )
    rim = [(20, 84), (28, 74), (32, 40), (42, 24), (58, 24), (68, 40), (72, 74), (80, 84)]
    bell = Polygon(rim).buffer(3).union(Point(50, 90).buffer(8))
    return {
        "tops": (coil, _spiral(5.5, 3, 45)),
        "sliver": (loose, _spiral(3.4, 4, 42, 1.2)),
        "batt": (sheet, "M6 44H92M6 61H92M6 78H92M24 20L10 32M44 20L34 32M66 20L58 32M88 20L82 32"),
        "core": (cloud, "M22 78q8-14 20-6t18-8 16 6M36 52q8-8 16 0t14 2"),
        "locks": (locks, "".join(_way(way) for way in curls) + "M24 50H76M24 55H76"),
        "neps": (_discs(grains), "".join(f"M{x - r / 2:.0f} {y}q{r / 2:.0f} -{r / 2:.0f} {r:.0f} 0" for x, y, r in grains)),
        "fleece": (fleece, "M16 90q4-20-4-34M32 92q4-28 0-46M48 92q2-30 2-54M64 92q0-26 8-44M80 90q4-18 10-30"),
        "prefelt": (box(6, 30, 94, 96).union(Polygon([(6, 40), (20, 18), (98, 18), (94, 40)])),
                    "M6 52H94M6 74H94M12 30L24 20M50 30L58 20M94 40L97 22"),
        "scrap": (heap.buffer(2), "M14 92l12-12 8 10 14-26 10 24 12-18 8 20M32 54l8 20M57 42l-4 22M80 56l-8 16"),
        "filling": (cushion.buffer(2), "M14 42q36 10 72 0M14 86q36-8 72 0M50 58v12M38 62q12 6 24 0"),
        "eyes": (_discs([(27, 50, 22), (73, 50, 22)]), "M20 42a8 8 0 0 1 8-6M66 42a8 8 0 0 1 8-6"),
        "wire": (ring, "M50 8a42 42 0 1 1-1 0M50 14a36 36 0 1 1-1 0M50 19a31 31 0 1 1-1 0"),
        "pipe_cleaner": (LineString(_wave(50, 6, 94, 16, 2)).buffer(7), _way(_wave(50, 6, 94, 16, 2))),
        "brooch_back": (LineString([(8, 62), (92, 62)]).buffer(9).union(LineString([(10, 56), (88, 36)]).buffer(2.5)),
                        "M24 62h1M50 62h1M76 62h1"),
        "needle": (Polygon([(46, 4), (54, 4), (54, 62), (50, 98), (46, 62)]).union(box(40, 4, 60, 20)), "M50 62v30M46 24h8"),
        "thread": (box(26, 8, 74, 20).union(box(26, 80, 74, 92)).union(box(32, 20, 68, 80)),
                   "M32 28L68 34M32 38L68 44M32 48L68 54M32 58L68 64M32 68L68 74"),
        "clay": (box(12, 34, 88, 84).buffer(-4).buffer(4), "M12 50H88M37 34V50M63 34V50"),
        "glue": (box(34, 40, 66, 96).union(Polygon([(40, 40), (60, 40), (54, 10), (46, 10)])), "M34 56H66M34 80H66"),
        "cutter": (Point(50, 50).buffer(44).difference(Point(50, 50).buffer(38)), "M18 50h6M76 50h6"),
        "stencil": (box(8, 12, 92, 88).difference(Point(50, 50).buffer(24)), "M16 20h8M76 20h8"),
        "pin": (Point(50, 16).buffer(12).union(Polygon([(47, 26), (53, 26), (50, 98)])), "M46 13a5 5 0 0 1 5-4"),
        "loop": (noose, "M50 54v40"),
        "perch": (twig, "M12 64L34 57M44 57L64 61M72 59L88 53"),
        "bell": (bell, "M28 74H72M46 24v-8h8v8"),
        "bead": (Point(50, 50).buffer(40).difference(Point(50, 50).buffer(9)), "M22 50a28 28 0 0 1 18-26"),
        "pad": (box(8, 40, 92, 84).buffer(-3).buffer(3), "M8 52H92M20 62h2M40 70h2M60 62h2M78 72h2"),
    }  # fmt: skip


def each_once(found: Iterable[Drawing]) -> list[Drawing]:
    """The drawings that a page needs, each once."""
    return list({drawing.key: drawing for drawing in found}.values())


@cache
def drawings() -> dict[str, Drawing]:
    """How each form of wool and each notion is drawn, with the levels to which it can be filled."""
    found = {}
    for key, (shape, lines) in _shapes().items():
        left, top, right, bottom = shape.bounds
        ys = np.linspace(bottom, top, 200)
        areas = np.array([shape.intersection(box(left, y, right, bottom + 1)).area for y in ys]) / shape.area
        levels = tuple(float(np.interp(share, areas, ys)) for share in np.linspace(0, 1, LEVELS + 1))
        found[key] = Drawing(key, _path(shape), lines, (left, top, right - left, bottom - top), shape.area, levels)
    return found
