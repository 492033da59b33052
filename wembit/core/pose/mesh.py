"""The skin of a placed part as a mesh, and its outline in a view; all in mm."""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from wembit.core.shape import solids

from .gaze import Gaze
from .placing import Bead, Placed, Seat, cross, section

UP = np.array([0, 0, 1.0])
ROUND = 24  # points round a section
ROWS, BETWEEN_RIM = 48, 10  # sections and points of a rim, where a cut has to be told finely
Ring = list[tuple[float, float]]


def surface(piece: Placed) -> np.ndarray:
    """Points of the skin, (sections, round, 3); kept with the piece. A line has one point a section."""
    if piece.skin is None:
        skin = _surface(piece)
        skin.flags.writeable = False
        piece.skin = skin
    return piece.skin


def _surface(piece: Placed) -> np.ndarray:
    shape, seat = piece.part.shape, piece.seat
    turns = np.linspace(0, 2 * math.pi, ROUND, endpoint=False)
    c, s = np.cos(turns)[:, None], np.sin(turns)[:, None]
    if isinstance(shape, solids.Slab) and not seat.bead.mm:
        return _slab(piece)
    if isinstance(shape, solids.Torus):
        return _torus(piece)
    if isinstance(shape, solids.Nothing) and not seat.bead.mm:
        way = np.array(line_on(piece))
        return way[:, None, :]
    t, tops, sides = _profile(shape, seat.bead.mm)
    if isinstance(shape, solids.Box):
        square = 1 / np.maximum(np.abs(c), np.abs(s))
        c, s = c * square, s * square
    rows = []
    for index, frame in enumerate(piece.frames):
        start, end = piece.joints[index], piece.joints[index + 1]
        rows.append(start + (end - start) * t + frame.top * (c * tops) + frame.side * (s * sides))
    return np.concatenate(rows)


@lru_cache(maxsize=512)
def _profile(shape: solids.Solid, bead_mm: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Shares of the axis at which a solid is cut, and half widths towards the top and the side there: (sections, 1, 1)."""
    t = shape.cuts
    tops, sides = zip(*(section(shape, Seat(bead=Bead(bead_mm)), each) for each in t), strict=True)
    at, top, side = (np.array(each, dtype=float)[:, None, None] for each in (t, tops, sides))
    return at, top, side


def close_together(piece: Placed) -> np.ndarray:
    """Points of the skin so close that a cut between two of them is not seen, (n, 3)."""
    points = surface(piece)
    if isinstance(piece.part.shape, solids.Slab):  # along its rim, on both faces
        ring = np.swapaxes(points[:2], 0, 1)
        steps = np.arange(BETWEEN_RIM)[:, None, None, None] / BETWEEN_RIM
        return (ring + (np.roll(ring, -1, axis=0) - ring) * steps).reshape(-1, 3)
    times = max(1, -(-ROWS // len(points)))
    if times == 1 or len(points) < 2:
        return points.reshape(-1, 3)
    steps = np.arange(times)[:, None, None, None] / times
    between = points[:-1] + (points[1:] - points[:-1]) * steps
    return np.concatenate([between.reshape(-1, 3), points[-1]])


def slab_directions(piece: Placed) -> tuple[np.ndarray, np.ndarray]:
    """Unit vectors of a slab's outline y and of its thickness, by how its face is turned."""
    frame = piece.frames[0]
    facing = {"side": np.array([0, 1.0, 0]), "front": np.array([1.0, 0, 0])}.get(piece.seat.face)
    normal = frame.top if facing is None else facing - frame.axis * float(facing @ frame.axis)
    if np.linalg.norm(normal) < 1e-6:
        normal = frame.side
    normal = normal / np.linalg.norm(normal)
    across = cross(normal, frame.axis)
    lead = frame.top if piece.seat.face == "side" else frame.side
    return (across if float(across @ lead) >= 0 else -across), normal


def _slab(piece: Placed) -> np.ndarray:
    across, normal = slab_directions(piece)
    shape, start, axis = piece.part.shape, piece.joints[0], piece.frames[0].axis
    assert isinstance(shape, solids.Slab)
    rim = np.array([start + axis * x + across * y for x, y in shape.outline])
    half = normal * shape.thickness_mm / 2
    middle = rim.mean(axis=0)
    return np.array([rim + half, rim - half, (rim + middle) / 2 + half, (rim + middle) / 2 - half])


def _torus(piece: Placed) -> np.ndarray:
    shape, frame = piece.part.shape, piece.frames[0]
    assert isinstance(shape, solids.Torus)
    middle = (piece.joints[0] + piece.joints[1]) / 2
    ring, tube = shape.ring_mm, shape.tube_diameter_mm / 2
    rows = []
    for turn in np.linspace(0, 2 * math.pi, ROUND, endpoint=False):
        out = frame.top * math.cos(turn) + frame.side * math.sin(turn)
        around = np.linspace(0, 2 * math.pi, 12, endpoint=False)[:, None]
        rows.append(middle + out * (ring + tube * np.cos(around)) + frame.axis * tube * np.sin(around))
    return np.array(rows)


@lru_cache(maxsize=512)
def convex(shape: solids.Solid) -> bool:
    """Whether a solid bulges everywhere; kept, since a drawing asks for every piece."""
    return shape.convex


def outline(piece: Placed, points: np.ndarray, gaze: Gaze) -> BaseGeometry:
    """The projected outline as a shapely geometry; empty for lines."""
    flat = gaze.flat(points)
    shape = piece.part.shape
    if isinstance(shape, solids.Nothing) and not piece.seat.bead.mm:
        return Polygon()
    if convex(shape):
        return hulls(flat.reshape(1, -1, 2))[0]
    if isinstance(shape, solids.Wrap):
        return LineString(gaze.flat(np.array(piece.joints))).buffer(shape.diameter_mm / 2, quad_segs=6)
    if isinstance(shape, solids.Slab):
        front, back = flat[0], flat[1]
        faces = [Polygon(front).buffer(0), Polygon(back).buffer(0)]
        edges = np.stack([front, np.roll(front, -1, 0), back, np.roll(back, -1, 0)], axis=1)
        return together([*faces, *hulls(edges)])
    if isinstance(shape, solids.Torus):
        return together(hulls(np.concatenate([flat, np.roll(flat, -1, 0)], axis=1)))
    return together(hulls(np.concatenate([flat[:-1], flat[1:]], axis=1)))


def hulls(points: np.ndarray) -> np.ndarray:
    """The convex hull of each row of points, (n, m, 2)."""
    return shapely.convex_hull(shapely.linestrings(points))


def together(shapes: Sequence[BaseGeometry] | np.ndarray) -> BaseGeometry:
    """The union of shapes, snapped to a fine grid: without one, neighbours that nearly touch can be lost."""
    if len(shapes) == 1:
        return shapes[0]
    return shapely.union_all(shapes, grid_size=1e-4) if len(shapes) else Polygon()


def rings_of(shape: BaseGeometry) -> list[Ring]:
    """The outlines of a geometry, holes among them, as rings of points."""
    parts = [part for part in getattr(shape, "geoms", [shape]) if part.geom_type == "Polygon" and not part.is_empty]
    rings = [ring for part in parts for ring in (part.exterior, *part.interiors)]
    return [list(map(tuple, shapely.get_coordinates(ring)[:-1].tolist())) for ring in rings]


def line_on(piece: Placed) -> list[np.ndarray]:
    """The way of a line on or from the skin, in space."""
    start, frame, seat = piece.joints[0], piece.frames[0], piece.seat
    if seat.line.kind == "spiral":
        return _spiral(piece)
    if seat.line.kind == "patch":
        return [start]
    hang = np.array([0, 0, -0.12 * seat.line.length_mm]) if seat.line.kind == "lock" else np.zeros(3)
    return [start + frame.axis * seat.line.length_mm * k / 6 + hang * (k / 6) ** 2 for k in range(7)]


def _spiral(piece: Placed) -> list[np.ndarray]:
    """A line wound on the flank of its host, from the rim to the middle."""
    host, seat = piece.host, piece.seat
    assert host is not None, "a line sits on something"
    point, frame = host.axis_at(0.5)
    side = frame.side * (piece.mirror * host.mirror)
    size = host.part.shape
    half = [
        getattr(size, name, getattr(size, "diameter_mm", 20.0)) / 2 for name in ("length_mm", "height_mm", "width_mm")
    ]
    rows = []
    for k in range(int(seat.line.turns * 28) + 1):
        share = 0.9 - 0.8 * k / (seat.line.turns * 28)
        turn = 2 * math.pi * k / 28
        flank = math.sqrt(max(0.0, 1 - share * share))
        rows.append(
            point + frame.axis * half[0] * share * math.cos(turn) + frame.top * half[1] * share * math.sin(turn)
            + side * half[2] * flank
        )  # fmt: skip
    return rows
