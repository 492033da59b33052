"""A figure seen from the side and from the front: outlines in mm, to scale, in the order in which they are painted.

Orthographic projection. Side: x to the right, z up, seen from −y. Front: y to the right, z up, seen from +x. A piece's
outline is the union of the hulls of neighbouring sections, which is its true projection for every solid here. Pieces are
painted back to front; which of two is in front is decided where they overlap, on a coarse grid of depths.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
import shapely
from shapely.geometry import LineString, MultiPoint, Polygon

from . import solids
from .placing import Placed, section

VIEWS = {
    "side": (np.array([1.0, 0, 0]), np.array([0, -1.0, 0])),
    "front": (np.array([0, 1.0, 0]), np.array([1.0, 0, 0])),
}
UP = np.array([0, 0, 1.0])
STEPS, ROUND = 17, 24
CELLS = 48
Ring = list[tuple[float, float]]


@dataclass(frozen=True)
class Zone:
    """A share of a piece's skin in its own colour, from the underside round (`under`) or from the top."""

    paint: str
    share: float
    under: bool = True


@dataclass(frozen=True)
class Coat:
    """Locks standing `length_mm` over a share of the skin, from the top round."""

    paint: str
    share: float
    length_mm: float


@dataclass(frozen=True)
class Dress:
    """The colours of a piece: its ground, zones painted over it, a coat, discs (paint, area in mm²) where it looks."""

    paint: str
    zones: tuple[Zone, ...] = ()
    coat: Coat | None = None
    discs: tuple[tuple[str, float], ...] = ()


@dataclass
class Drawn:
    """One piece on paper: closed rings of its ground and of each zone, hairs and lines as open strokes, all in mm."""

    name: str
    paint: str
    rings: list[Ring]
    zones: list[tuple[str, list[Ring]]] = field(default_factory=list)
    hairs: list[tuple[str, list[Ring]]] = field(default_factory=list)
    stroke: tuple[str, Ring, float] | None = None


@dataclass
class View:
    """Pieces back to front, and the bounds (left, bottom, right, top) in mm with the lowest point on 0."""

    pieces: list[Drawn]
    bounds: tuple[float, float, float, float]


def view(pieces: Sequence[Placed], dresses: dict[str, Dress], which: str) -> View:
    """The figure from the side or the front; `dresses` by part name. An empty figure has empty bounds."""
    right, near = VIEWS[which]
    drawn, depths = [], []
    for index, piece in enumerate(pieces):
        points = surface(piece)
        flat = points.reshape(-1, 3)
        shape = outline(piece, points, right)
        drawn.append(_drawn(piece, points, shape, dresses.get(piece.name, Dress("")), right, near, index))
        depths.append((flat @ right, flat @ UP, flat @ near))
    solid = [(u, v) for (u, v, _), d in zip(depths, drawn, strict=True) if d.rings]
    if not solid:
        return View([], (0, 0, 0, 0))
    strands = [np.array(ring) for d in drawn for _, rings in d.hairs for ring in rings if len(ring)]
    left = min([u.min() for u, _ in solid] + [s[:, 0].min() for s in strands])
    top = max([v.max() for _, v in solid] + [s[:, 1].max() for s in strands])
    end = max([u.max() for u, _ in solid] + [s[:, 0].max() for s in strands])
    ground = min(v.min() for _, v in solid)
    order = paint_order(depths, (left, ground, end, top), beads_over(pieces, near))
    shifted = [_raised(drawn[index], -ground) for index in order]
    return View(shifted, (float(left), 0.0, float(end), float(top - ground)))


def surface(piece: Placed) -> np.ndarray:
    """Points of the skin: (sections, round, 3)."""
    shape, seat = piece.part.shape, piece.seat
    turns = np.linspace(0, 2 * math.pi, ROUND, endpoint=False)
    c, s = np.cos(turns)[:, None], np.sin(turns)[:, None]
    if isinstance(shape, solids.Slab) and not seat.bead_mm:
        return _slab(piece)
    if isinstance(shape, solids.Torus):
        return _torus(piece)
    if isinstance(shape, solids.Nothing) and not seat.bead_mm:
        way = np.array(_line(piece))
        return way[:, None, :]
    rows = []
    for index, frame in enumerate(piece.frames):
        start, end = piece.joints[index], piece.joints[index + 1]
        for t in _stations(piece):
            top, side = section(shape, seat, t)
            if isinstance(shape, solids.Box):
                scale = 1 / np.maximum(np.abs(c), np.abs(s))
                rows.append(start + (end - start) * t + (frame.top * c * top + frame.side * s * side) * scale)
            else:
                rows.append(start + (end - start) * t + frame.top * c * top + frame.side * s * side)
    return np.array(rows)


def _stations(piece: Placed) -> list[float]:
    shape = piece.part.shape
    if isinstance(shape, solids.Silhouette):
        first, last = shape.stations[0][0], shape.stations[-1][0]
        return [(x - first) / (last - first) for x, _ in shape.stations]
    if isinstance(shape, solids.Cylinder | solids.Frustum | solids.Cone | solids.Box | solids.Wrap):
        return [0, 0.25, 0.5, 0.75, 1]
    return [(1 - math.cos(math.pi * i / (STEPS - 1))) / 2 for i in range(STEPS)]  # close together at the ends


def slab_directions(piece: Placed) -> tuple[np.ndarray, np.ndarray]:
    """Unit vectors of a slab's outline y and of its thickness, by how its face is turned."""
    frame = piece.frames[0]
    facing = {"side": np.array([0, 1.0, 0]), "front": np.array([1.0, 0, 0])}.get(piece.seat.face)
    normal = frame.top if facing is None else facing - frame.axis * float(facing @ frame.axis)
    if np.linalg.norm(normal) < 1e-6:
        normal = frame.side
    normal = normal / np.linalg.norm(normal)
    across = np.cross(normal, frame.axis)
    lead = frame.top if piece.seat.face == "side" else frame.side
    return (across if float(across @ lead) >= 0 else -across), normal


def _slab(piece: Placed) -> np.ndarray:
    across, normal = slab_directions(piece)
    shape, start, axis = piece.part.shape, piece.joints[0], piece.frames[0].axis
    rim = np.array([start + axis * x + across * y for x, y in shape.outline])
    half = normal * shape.thickness_mm / 2
    middle = rim.mean(axis=0)
    return np.array([rim + half, rim - half, (rim + middle) / 2 + half, (rim + middle) / 2 - half])


def _torus(piece: Placed) -> np.ndarray:
    shape, frame = piece.part.shape, piece.frames[0]
    middle = (piece.joints[0] + piece.joints[1]) / 2
    ring, tube = (shape.outer_diameter_mm - shape.tube_diameter_mm) / 2, shape.tube_diameter_mm / 2
    rows = []
    for turn in np.linspace(0, 2 * math.pi, ROUND, endpoint=False):
        out = frame.top * math.cos(turn) + frame.side * math.sin(turn)
        around = np.linspace(0, 2 * math.pi, 12, endpoint=False)[:, None]
        rows.append(middle + out * (ring + tube * np.cos(around)) + frame.axis * tube * np.sin(around))
    return np.array(rows)


def outline(piece: Placed, points: np.ndarray, right: np.ndarray):
    """The projected outline as a shapely geometry; empty for lines."""
    flat = np.stack([points @ right, points @ UP], axis=-1)
    shape = piece.part.shape
    if isinstance(shape, solids.Nothing) and not piece.seat.bead_mm:
        return Polygon()
    if isinstance(shape, solids.Wrap):
        way = np.array([[joint @ right, joint @ UP] for joint in piece.joints])
        return LineString(way).buffer(shape.diameter_mm / 2, quad_segs=6)
    if isinstance(shape, solids.Slab):
        front, back = flat[0], flat[1]
        faces = [Polygon(front).buffer(0), Polygon(back).buffer(0)]
        ends = zip(front, np.roll(front, -1, 0), back, np.roll(back, -1, 0), strict=True)
        return together(faces + [MultiPoint(np.array(four)).convex_hull for four in ends])
    if isinstance(shape, solids.Torus):
        hoops = [MultiPoint(np.vstack([a, b])).convex_hull for a, b in zip(flat, np.roll(flat, -1, 0), strict=True)]
        return together(hoops)
    if isinstance(shape, solids.Silhouette):
        spans = zip(flat, flat[1:], strict=False)
        return together([MultiPoint(np.vstack([a, b])).convex_hull for a, b in spans])
    return MultiPoint(flat.reshape(-1, 2)).convex_hull


def together(shapes):
    """The union of shapes, snapped to a fine grid: without one, neighbours that nearly touch can be lost."""
    return shapely.union_all(shapes, grid_size=1e-4) if shapes else Polygon()


def _rings(shape) -> list[Ring]:
    parts = [part for part in getattr(shape, "geoms", [shape]) if part.geom_type == "Polygon" and not part.is_empty]
    return [list(ring.coords)[:-1] for part in parts for ring in (part.exterior, *part.interiors)]


def _drawn(piece, points, shape, dress: Dress, right, near, seed: int) -> Drawn:
    found = Drawn(piece.name, dress.paint, _rings(shape))
    line = piece.seat.line
    if line == "patch":
        found.rings = _patch(piece, right, near)
    elif line:
        way = [(float(p @ right), float(p @ UP)) for p in _line(piece)]
        found.stroke = (dress.paint, way, piece.seat.width_mm or {"thread": 0.6, "lock": 2.4}.get(line, 1.2))
    if found.rings and points.shape[1] == ROUND and points.shape[0] > 2:
        for zone in dress.zones:
            patch = _skin(points, zone.share, zone.under, right, near).intersection(shape)
            found.zones.append((zone.paint, _rings(patch)))
        if dress.coat:
            ground = _skin(points, dress.coat.share, False, right, near).intersection(shape)
            found.zones.append((dress.coat.paint, _rings(ground)))
            found.hairs.append((dress.coat.paint, _locks(piece, points, dress.coat, right, near, seed)))
    if piece.out is not None and isinstance(piece.part.shape, solids.Sphere):
        middle = (piece.joints[0] + piece.joints[1]) / 2
        for paint, area in sorted(dress.discs, key=lambda disc: -disc[1]):
            found.zones.append((paint, _disc(middle, piece, area, right, near)))
    if found.rings and not piece.seat.bead_mm and line != "patch":
        found.hairs.append((dress.paint, fuzz(shape, seed)))
    return found


def _skin(points: np.ndarray, share: float, under: bool, right, near):
    """The share of the skin round the underside (or the top) that faces the viewer, as a geometry."""
    low, high = (180 * (1 - share), 180.0) if under else (0.0, 180 * share)
    middles = points.mean(axis=1)
    angles = _from_top()
    quads = []
    for j in range(ROUND):
        k = (j + 1) % ROUND
        span = angles[k] - angles[j]
        ends = sorted(np.clip([(low - angles[j]) / span, (high - angles[j]) / span], 0, 1))
        if ends[1] - ends[0] < 1e-6:
            continue
        start, end = (points[:, j] + (points[:, k] - points[:, j]) * each for each in ends)
        for i in range(points.shape[0] - 1):
            corners = np.array([start[i], end[i], end[i + 1], start[i + 1]])
            normal = np.cross(corners[2] - corners[0], corners[3] - corners[1])
            out = corners.mean(axis=0) - (middles[i] + middles[i + 1]) / 2
            facing = float(normal @ near) * (1 if float(normal @ out) >= 0 else -1)
            if facing > -0.1 * float(np.linalg.norm(normal)):
                quads.append(MultiPoint(np.stack([corners @ right, corners @ UP], axis=-1)).convex_hull)
    return together([q for q in quads if q.geom_type == "Polygon"])


def _from_top() -> np.ndarray:
    """Angle from the top of each point of a section, 0 to 180."""
    return np.abs((np.arange(ROUND) * 360 / ROUND + 180) % 360 - 180)


def _locks(piece: Placed, points: np.ndarray, coat: Coat, right, near, seed: int) -> list[Ring]:
    """Strokes of the coat's locks where it grows, leaning back from the tip."""
    chance = np.random.default_rng(seed)
    wanted = _from_top() <= 180 * coat.share + 1
    middle = points.mean(axis=(0, 1))
    axis = piece.frames[0].axis
    rows = []
    for i in range(1, points.shape[0] - 1):
        for j in range(ROUND):
            for _ in range(2):
                base = points[i, j] + (points[i, (j + 1) % ROUND] - points[i, j]) * chance.random()
                base = base + (points[i + 1, j] - points[i, j]) * chance.random()
                out = base - middle - axis * float((base - middle) @ axis) * 0.55
                out = out / (np.linalg.norm(out) or 1)
                if not wanted[j] or float(out @ near) < -0.35:
                    continue
                lean = out - axis * (0.45 + 0.2 * chance.random())
                tip = base + lean / np.linalg.norm(lean) * coat.length_mm * (0.85 + 0.3 * chance.random())
                rows.append([(float(base @ right), float(base @ UP)), (float(tip @ right), float(tip @ UP))])
    return rows


def fuzz(shape, seed: int, every_mm: float = 1.6) -> list[Ring]:
    """Short stray fibres along an outline: the edge of felt."""
    chance = np.random.default_rng(seed)
    hairs = []
    for ring in _rings(shape):
        line = LineString([*ring, ring[0]])
        spots = np.arange(0, line.length, every_mm)
        here = shapely.get_coordinates(shapely.line_interpolate_point(line, spots))
        ahead = shapely.get_coordinates(shapely.line_interpolate_point(line, np.minimum(spots + 0.2, line.length)))
        way = ahead - here
        size = np.hypot(way[:, 0], way[:, 1])
        keep = size > 1e-9
        here, way = here[keep], way[keep] / size[keep, None]
        out = np.stack([way[:, 1], -way[:, 0]], axis=-1) * (
            1 if shapely.is_ccw(shapely.linearrings([*ring, ring[0]])) else -1
        )
        long = 0.5 + 0.9 * chance.random(len(here))
        slant = chance.normal(0, 0.6, len(here))
        tips = here + (out + way * slant[:, None]) * long[:, None]
        roots = here - out * 0.5
        hairs += [[tuple(map(float, a)), tuple(map(float, b))] for a, b in zip(roots, tips, strict=True)]
    return hairs


def _line(piece: Placed) -> list[np.ndarray]:
    """The way of a line on or from the skin, in space."""
    start, frame, seat = piece.joints[0], piece.frames[0], piece.seat
    if seat.line == "spiral":
        return _spiral(piece)
    if seat.line == "patch":
        return [start]
    hang = np.array([0, 0, -0.12 * seat.length_mm]) if seat.line == "lock" else np.zeros(3)
    return [start + frame.axis * seat.length_mm * k / 6 + hang * (k / 6) ** 2 for k in range(7)]


def _spiral(piece: Placed) -> list[np.ndarray]:
    """A line wound on the flank of its host, from the rim to the middle."""
    host, seat = piece.host, piece.seat
    point, frame = host.axis_at(0.5)
    side = frame.side * (piece.mirror * host.mirror)
    size = host.part.shape
    half = [
        getattr(size, name, getattr(size, "diameter_mm", 20.0)) / 2 for name in ("length_mm", "height_mm", "width_mm")
    ]
    rows = []
    for k in range(int(seat.turns * 28) + 1):
        share = 0.9 - 0.8 * k / (seat.turns * 28)
        turn = 2 * math.pi * k / 28
        flank = math.sqrt(max(0.0, 1 - share * share))
        rows.append(
            point + frame.axis * half[0] * share * math.cos(turn) + frame.top * half[1] * share * math.sin(turn)
            + side * half[2] * flank
        )  # fmt: skip
    return rows


def _patch(piece: Placed, right, near) -> list[Ring]:
    """A small upright patch on the skin, where it faces the viewer."""
    out = piece.out
    if float(out @ near) < 0.2:
        return []
    across = np.cross(UP, out)
    middle, half = piece.joints[0], math.sqrt(max(piece.seat.width_mm, 16.0)) / 2
    corners = [(-0.8, -1), (0.8, -1), (0.8, 0.7), (0, 1.2), (-0.8, 0.7)]
    points = [middle + (across * x + UP * z) * half for x, z in corners]
    return [[(float(p @ right), float(p @ UP)) for p in points]]


def _disc(middle, piece: Placed, area: float, right, near) -> list[Ring]:
    """A round spot of that area on a ball, looking outward and a little forward, where it faces the viewer."""
    look = piece.out + np.array([0.9, 0, 0])
    look = look / np.linalg.norm(look)
    if float(look @ near) < 0:
        return []
    frame = np.cross(look, UP)
    frame = frame / np.linalg.norm(frame)
    over = np.cross(frame, look)
    ball, radius = piece.part.shape.diameter_mm / 2, math.sqrt(area / math.pi)
    centre = middle + look * math.sqrt(max(0.0, ball**2 - radius**2))
    turns = np.linspace(0, 2 * math.pi, 20, endpoint=False)
    rim = [centre + (frame * math.cos(a) + over * math.sin(a)) * radius for a in turns]
    return [[(float(p @ right), float(p @ UP)) for p in rim]]


def beads_over(pieces: Sequence[Placed], near: np.ndarray) -> dict[tuple[int, int], bool]:
    """For each bead and the piece it sits on: whether the bead is in front, since it stands out of that skin.

    A bead is smaller than a few cells of the grid, so it is told by the side of its host on which it sits.
    """
    found = {}
    for index, piece in enumerate(pieces):
        host = next((at for at, other in enumerate(pieces) if other is piece.host), None)
        if piece.seat.bead_mm and host is not None:
            away = piece.axis_at(0.5)[0] - pieces[host].axis_at(0.5)[0]
            found[index, host] = bool(away @ near > -1e-6)
    return found


def paint_order(depths, bounds, told: dict[tuple[int, int], bool]) -> list[int]:
    """Indices back to front. A piece is behind another where, over the cells that both cover, it lies deeper.

    `told` says of some pairs whether the first is in front of the second.
    """
    left, bottom, right_, top = bounds
    cell = max(right_ - left, top - bottom, 1e-6) / CELLS
    count = len(depths)
    grid = np.full((count, (CELLS + 2) ** 2), np.nan)
    for index, (u, v, near) in enumerate(depths):
        column = np.clip(((u - left) / cell).astype(int), 0, CELLS + 1)
        row = np.clip(((v - bottom) / cell).astype(int), 0, CELLS + 1)
        spot = row * (CELLS + 2) + column
        best = np.full(grid.shape[1], -np.inf)
        np.maximum.at(best, spot, near)
        grid[index] = np.where(np.isfinite(best), best, np.nan)
    mean = np.nanmean(grid, axis=1)
    behind: dict[int, set[int]] = {index: set() for index in range(count)}  # what must be painted before it
    for one in range(count):
        gap = grid[one] - grid
        covered = ~np.isnan(gap)
        shared = covered.sum(axis=1)
        sums = np.where(covered, gap, 0).sum(axis=1)
        for two in range(count):
            if two != one and shared[two] and told.get((one, two), not told.get((two, one), sums[two] <= 0)):
                behind[one].add(two)
    order: list[int] = []
    left_over = set(range(count))
    while left_over:
        free = [index for index in left_over if not (behind[index] & left_over)]
        following = min(free or left_over, key=lambda index: mean[index])
        order.append(following)
        left_over.remove(following)
    return order


def _raised(drawn: Drawn, by: float) -> Drawn:
    def up(ring: Ring) -> Ring:
        return [(u, v + by) for u, v in ring]

    drawn.rings = [up(ring) for ring in drawn.rings]
    drawn.zones = [(paint, [up(ring) for ring in rings]) for paint, rings in drawn.zones]
    drawn.hairs = [(paint, [up(ring) for ring in rings]) for paint, rings in drawn.hairs]
    if drawn.stroke:
        paint, way, width = drawn.stroke
        drawn.stroke = (paint, up(way), width)
    return drawn
