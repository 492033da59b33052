"""Details on a skin as they are drawn: spots in a row or a ring, patches of an area, lines, and caps over an end."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from shapely.geometry import MultiPoint, Polygon, box
from shapely.geometry.base import BaseGeometry

from wembit.core.pose.gaze import Gaze
from wembit.core.pose.mesh import Ring, slab_directions, together
from wembit.core.pose.placing import Placed, axis_length, cross, section
from wembit.core.shape import solids

AT_AN_END = 0.03  # of the axis: a mark so near to an end lies over it
TURNED_AWAY = -0.2  # an end that points so far from the viewer is hidden by its own part
RIM, SLICES = 40, 17  # points of a rim on a flat face; slices of a mark and points across each
STEP, CAP_STEPS = 0.01, 200


@dataclass(frozen=True)
class Spots:
    """Round spots `across_mm` wide, each at a share of the axis and an angle round from the top."""

    paint: str
    across_mm: float
    at: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class Mark:
    """A patch (or, `blunt`, a line) around a place of the skin: `long_mm` along the axis, `wide_mm` round it."""

    paint: str
    long_mm: float
    wide_mm: float
    t: float
    angle: float
    blunt: bool = False

    @property
    def area(self) -> float:
        """mm²: an ellipse, or a rectangle where it is blunt."""
        return self.long_mm * self.wide_mm * (1 if self.blunt else math.pi / 4)


def patches(paint: str, area_mm2: float, t: float, angle: float, stretch: float = 1.0, pieces: int = 1) -> list[Mark]:
    """An area in pieces of the same size, each `stretch` times as long along the axis as it is wide: two lie on both
    flanks, more evenly round.
    """
    wide = math.sqrt(4 * area_mm2 / pieces / math.pi / stretch)
    turns = (angle, -angle) if pieces == 2 else tuple(angle + 360 * k / pieces for k in range(pieces))
    return [Mark(paint, wide * stretch, wide, t, turn) for turn in turns]


def line(paint: str, line_mm: float, width_mm: float, t: float, angle: float, *, round_: bool = False) -> Mark:
    """A line along the axis, or round it."""
    return Mark(paint, *((width_mm, line_mm) if round_ else (line_mm, width_mm)), t, angle, blunt=True)


def mark_on(piece: Placed, mark: Mark, gaze: Gaze) -> BaseGeometry:
    """What of a mark faces the viewer, as a geometry; it may reach over the piece's outline."""
    over_an_end = not AT_AN_END < mark.t < 1 - AT_AN_END and not mark.blunt
    if isinstance(piece.part.shape, solids.Slab):
        return _cap_of_slab(piece, mark, gaze) if over_an_end else _on_face(piece, mark, gaze)
    if over_an_end:
        return _cap(piece, mark, gaze)
    length = axis_length(piece.part.shape, piece.seat)
    low, high = [], []
    for ahead in np.sin(np.linspace(-math.pi / 2, math.pi / 2, SLICES)):
        t = mark.t + ahead * mark.long_mm / 2 / length
        if not 0 <= t <= 1:
            continue
        half = mark_half(mark, ahead)
        points, normals = across(piece, t, mark.angle, half, length)
        seen = points[normals @ gaze.near >= 0]
        if len(seen):
            low.append(seen[0])
            high.append(seen[-1])
    rim = np.array([*low, *reversed(high)])
    return Polygon(gaze.flat(rim)).buffer(0) if len(rim) > 3 else Polygon()


def mark_half(mark: Mark, ahead: float) -> float:
    """Half the width in mm of a mark, `ahead` of its middle as a share of half its length."""
    return mark.wide_mm / 2 * (1 if mark.blunt else math.sqrt(max(0.0, 1 - ahead * ahead)))


def across(piece: Placed, t: float, angle: float, half_mm: float, length: float) -> tuple[np.ndarray, np.ndarray]:
    """Points of the skin at t, up to `half_mm` round from an angle both ways, and the ways outward there, each (n, 3)."""
    top, side = section(piece.part.shape, piece.seat, t)
    point, frame = piece.axis_at(t)
    if not top or not side:
        return point[None], np.zeros((1, 3))
    turn = min(math.pi, half_mm / _radius(piece, t))
    turns = math.radians(angle) + np.linspace(-turn, turn, SLICES)[:, None]
    c, s = np.cos(turns), np.sin(turns)
    out = frame.top * c + frame.side * s
    if isinstance(piece.part.shape, solids.Box):
        reach = 1 / np.maximum(np.abs(c) / top, np.abs(s) / side)
    else:
        reach = 1 / np.hypot(c / top, s / side)
    lean = (_radius(piece, t + STEP) - _radius(piece, t - STEP)) / (2 * STEP * length)
    normal = frame.top * (c / top**2) + frame.side * (s / side**2)
    normal = normal / np.linalg.norm(normal, axis=1)[:, None] - frame.axis * lean
    return point + out * reach, normal


def _radius(piece: Placed, t: float) -> float:
    return sum(section(piece.part.shape, piece.seat, t)) / 2


def _cap(piece: Placed, mark: Mark, gaze: Gaze) -> BaseGeometry:
    """The end of a solid, so far in that the skin there has the mark's area."""
    at_tip = mark.t > 0.5
    _end, frame = piece.axis_at(1.0 if at_tip else 0.0)
    if float(frame.axis @ gaze.near) * (1 if at_tip else -1) < TURNED_AWAY:
        return Polygon()
    far = cap_reach(piece, mark)
    ways = np.linspace(1 - far, 1, 5) if at_tip else np.linspace(0, far, 5)
    points = [piece.skin_at(t, angle)[0] for t in ways for angle in range(0, 360, 15)]
    return MultiPoint(gaze.flat(np.array(points))).convex_hull


def cap_reach(piece: Placed, mark: Mark) -> float:
    """How far in from an end the skin has the mark's area, as a share of the axis."""
    at_tip = mark.t > 0.5
    length = axis_length(piece.part.shape, piece.seat)
    radius, far = _radius(piece, 1.0 if at_tip else 0.0), 0.0
    covered = math.pi * radius**2  # a flat end counts
    for step in range(1, CAP_STEPS + 1):
        if covered >= mark.area:
            break
        before, far = far, (step / CAP_STEPS) ** 2  # close together where it begins
        following = _radius(piece, 1 - far if at_tip else far)
        covered += math.pi * (radius + following) * math.hypot(length * (far - before), following - radius)
        radius = following
    return far


def _cap_of_slab(piece: Placed, mark: Mark, gaze: Gaze) -> BaseGeometry:
    """The end of a slab, so far in that both faces there have the mark's area together."""
    sheets = [MultiPoint(gaze.flat(np.concatenate([one, two]))).convex_hull for one, two in cap_sheets(piece, mark)]
    return together(sheets)


def cap_sheets(piece: Placed, mark: Mark) -> list[tuple[np.ndarray, np.ndarray]]:
    """The rims of that end on both faces of a slab, each (n, 3) in mm; several where the outline has several tips."""
    shape = piece.part.shape
    assert isinstance(shape, solids.Slab)
    face = Polygon(shape.outline).buffer(0)
    low, bottom, high, top = face.bounds
    near_in, far_in = 0.0, high - low
    for _ in range(30):
        deep = (near_in + far_in) / 2
        cut = box(high - deep, bottom, high, top) if mark.t > 0.5 else box(low, bottom, low + deep, top)
        near_in, far_in = (deep, far_in) if 2 * face.intersection(cut).area < mark.area else (near_in, deep)
    across_face, normal = slab_directions(piece)
    half = normal * shape.thickness_mm / 2
    kept = face.intersection(cut)
    rims = [
        np.array([piece.joints[0] + piece.frames[0].axis * x + across_face * y for x, y in part.exterior.coords])
        for part in getattr(kept, "geoms", [kept])
        if part.geom_type == "Polygon"
    ]
    return [(rim + half, rim - half) for rim in rims]


def _on_face(piece: Placed, mark: Mark, gaze: Gaze) -> BaseGeometry:
    """An ellipse on the face of a slab that the mark's angle points to."""
    rim, out = face_rim(piece, mark)
    return Polygon(gaze.flat(rim)).buffer(0) if float(out @ gaze.near) > 0.05 else Polygon()


def face_rim(piece: Placed, mark: Mark) -> tuple[np.ndarray, np.ndarray]:
    """The rim of that ellipse, (n, 3) in mm, and the way outward of that face."""
    across_face, normal = slab_directions(piece)
    frame, shape = piece.frames[0], piece.part.shape
    assert isinstance(shape, solids.Slab)
    turn = math.radians(mark.angle)
    towards = frame.top * math.cos(turn) + frame.side * math.sin(turn)
    out = normal if float(normal @ towards) >= 0 else -normal
    way = mark.t * axis_length(shape, piece.seat)
    middle = piece.joints[0] + frame.axis * way + across_face * (sum(shape.span_at(way)) / 2)
    middle = middle + out * shape.thickness_mm / 2
    turns = np.linspace(0, 2 * math.pi, RIM, endpoint=False)[:, None]
    return middle + frame.axis * np.cos(turns) * mark.long_mm / 2 + across_face * np.sin(turns) * mark.wide_mm / 2, out


def spots_on(piece: Placed, spots: Spots, gaze: Gaze) -> list[Ring]:
    """Each spot as a disc that touches the skin, where it faces the viewer."""
    rims = (rim for rim, out in spot_rims(piece, spots) if float(out @ gaze.near) > 0.05)
    return [list(map(tuple, gaze.flat(rim).tolist())) for rim in rims]


def spot_rims(piece: Placed, spots: Spots) -> list[tuple[np.ndarray, np.ndarray]]:
    """The rim of each spot, (n, 3) in mm, and the way outward there."""
    found = []
    turns = np.linspace(0, 2 * math.pi, 16, endpoint=False)[:, None]
    for t, angle in spots.at:
        centre, out = skin_normal(piece, t, angle)
        aside = cross(out, piece.axis_at(t)[1].axis)
        aside = aside / (np.linalg.norm(aside) or 1)
        rim = centre + (aside * np.cos(turns) + cross(out, aside) * np.sin(turns)) * spots.across_mm / 2
        found.append((rim, out))
    return found


def skin_normal(piece: Placed, t: float, angle: float) -> tuple[np.ndarray, np.ndarray]:
    """Point on the skin and the unit vector square to the skin there, outward."""
    point, out = piece.skin_at(t, angle)
    step = 0.02
    along = piece.skin_at(min(1, t + step), angle)[0] - piece.skin_at(max(0, t - step), angle)[0]
    around = piece.skin_at(t, angle + 2)[0] - piece.skin_at(t, angle - 2)[0]
    normal = cross(along, around)
    size = np.linalg.norm(normal)
    if size < 1e-9:
        return point, out
    return point, normal / size * (1 if float(normal @ out) >= 0 else -1)
