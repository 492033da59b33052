"""The skin of placed parts: what of it is hidden in a join, and how long the line between two zones is."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import Polygon

from wembit.core.shape import solids

from .mesh import close_together, slab_directions, surface
from .placing import Bead, Placed, Seat, axis_length, section

TABLE = np.linspace(0, 1, 65)
TOUCHING_MM = 0.05  # flat ends that meet hide each other
QUARTERS = (0.25, 0.75)  # of a face of the mesh, both ways: where its four points lie
ACROSS = 24  # samples over the longer side of a slab's face


def visible_shares(pieces: Sequence[Placed]) -> dict[str, float]:
    """For each part with a skin, the share of it that lies inside neither what it sits on nor what sits on it.

    Measured on a mesh of the skin, weighted by area; the mean over the pieces of the part.
    """
    shares: dict[str, list[float]] = {}
    for piece in pieces:
        points, areas = skin_points(piece)
        if not len(points):
            continue
        hidden = np.zeros(len(points), dtype=bool)
        for other in pieces:
            if other is piece.host or other.host is piece:
                near = np.flatnonzero(_near(other, points) & ~hidden)
                hidden[near] = inside(other, points[near])
        shares.setdefault(piece.name, []).append(1 - float(areas[hidden].sum() / areas.sum()))
    return {name: sum(found) / len(found) for name, found in shares.items()}


def outside(piece: Placed) -> tuple[np.ndarray, bool]:
    """Points close together of a piece's skin that do not lie inside what it sits on, (n, 3), and whether any does; kept
    with the piece.
    """
    if piece.outside is None:
        assert piece.host is not None, "only what sits on something is hidden by it"
        points = close_together(piece)
        near = np.flatnonzero(_near(piece.host, points))
        hidden = np.zeros(len(points), dtype=bool)
        hidden[near] = inside(piece.host, points[near])
        shown = points[~hidden]
        shown.flags.writeable = False
        piece.outside = (shown, bool(hidden.any()))
    return piece.outside


def _near(piece: Placed, points: np.ndarray) -> np.ndarray:
    """Which points lie in the box round a piece: only those can be inside it."""
    if piece.box is None:
        skin = surface(piece).reshape(-1, 3)
        piece.box = skin.min(axis=0) - TOUCHING_MM, skin.max(axis=0) + TOUCHING_MM
    low, high = piece.box
    return np.all((points >= low) & (points <= high), axis=1)


def skin_points(piece: Placed) -> tuple[np.ndarray, np.ndarray]:
    """Points spread over the skin, (n, 3) in mm, and the area that each stands for, (n,) in mm²; none for lines."""
    shape = piece.part.shape
    if isinstance(shape, solids.Nothing):
        return np.zeros((0, 3)), np.zeros(0)
    if isinstance(shape, solids.Slab):
        return _slab_points(piece, shape)
    grid = surface(piece)
    if isinstance(shape, solids.Torus):
        grid = np.concatenate([grid, grid[:1]])
    elif not isinstance(shape, solids.Wrap):  # flat ends count, those of a sleeve do not
        first, last = (np.broadcast_to(joint, grid[:1].shape) for joint in (piece.joints[0], piece.joints[-1]))
        grid = np.concatenate([first, grid, last])
    corners = (grid[:-1], np.roll(grid[:-1], -1, axis=1), np.roll(grid[1:], -1, axis=1), grid[1:])
    across, along = corners[2] - corners[0], corners[3] - corners[1]
    areas = np.linalg.norm(np.cross(across, along), axis=-1) / 2
    points = [
        corners[0] * (1 - u) * (1 - v) + corners[1] * u * (1 - v) + corners[2] * u * v + corners[3] * (1 - u) * v
        for u in QUARTERS
        for v in QUARTERS
    ]
    return np.concatenate([point.reshape(-1, 3) for point in points]), np.tile(
        areas.reshape(-1) / len(points), len(points)
    )


def _slab_points(piece: Placed, shape: solids.Slab) -> tuple[np.ndarray, np.ndarray]:
    xs, ys = (np.array(each) for each in zip(*shape.outline, strict=True))
    step = max(np.ptp(xs), np.ptp(ys)) / ACROSS
    u, v = (each.ravel() for each in np.meshgrid(np.arange(xs.min() + step / 2, xs.max(), step),
                                                 np.arange(ys.min() + step / 2, ys.max(), step)))  # fmt: skip
    kept = shapely.contains_xy(Polygon(shape.outline), u, v)
    across, normal = slab_directions(piece)
    middle = piece.joints[0] + u[kept, None] * piece.frames[0].axis + v[kept, None] * across
    half = normal * shape.thickness_mm / 2
    return np.concatenate([middle + half, middle - half]), np.full(2 * int(kept.sum()), step * step)


@lru_cache(maxsize=512)
def _profile(shape: solids.Solid, bead_mm: float, face: str) -> np.ndarray:
    """Half widths towards the top and towards the side at each place of the TABLE: (2, n)."""
    seat = Seat(bead=Bead(bead_mm), face=face)
    return np.array([section(shape, seat, t) for t in TABLE]).T


def inside(piece: Placed, points: np.ndarray) -> np.ndarray:
    """Which of the points (n, 3) lie inside a piece: a boolean mask (n,)."""
    shape, seat = piece.part.shape, piece.seat
    found = np.zeros(len(points), dtype=bool)
    if not len(points):
        return found
    if isinstance(shape, solids.Nothing) and not seat.bead.mm:
        return found
    if isinstance(shape, solids.Slab):
        across, normal = slab_directions(piece)
        away = points - piece.joints[0]
        within = np.abs(away @ normal) <= shape.thickness_mm / 2
        return within & shapely.contains_xy(Polygon(shape.outline), away @ piece.frames[0].axis, away @ across)
    if isinstance(shape, solids.Torus):
        frame, middle = piece.frames[0], (piece.joints[0] + piece.joints[1]) / 2
        away, tube = points - middle, shape.tube_diameter_mm / 2
        ring = (shape.outer_diameter_mm - shape.tube_diameter_mm) / 2
        return np.hypot(np.hypot(away @ frame.top, away @ frame.side) - ring, away @ frame.axis) <= tube
    tops, sides = _profile(shape, seat.bead.mm, seat.face)
    for start, end, frame in zip(piece.joints, piece.joints[1:], piece.frames, strict=False):
        span = float(np.linalg.norm(end - start))
        if span == 0:
            continue
        away = points - start
        t = away @ frame.axis / span
        top, side = np.interp(t, TABLE, tops), np.interp(t, TABLE, sides)
        up, out = np.abs(away @ frame.top), np.abs(away @ frame.side)
        with np.errstate(divide="ignore", invalid="ignore"):
            if isinstance(shape, solids.Box):
                within = (up <= top) & (out <= side)
            else:
                within = (up / top) ** 2 + (out / side) ** 2 <= 1
        slack = TOUCHING_MM / span
        found |= within & (t >= -slack) & (t <= 1 + slack)
    return found


def border_mm(shape: solids.Solid, seat: Seat, share: float) -> float:
    """Length in mm of the line between a zone and the rest, where the zone takes `share` of the way round from the top
    on both flanks: twice the way along the skin from root to tip at that angle. 0 where there is no line.
    """
    if not 0 < share < 1 or isinstance(shape, solids.Nothing):
        return 0.0
    turn = np.pi * share
    tops, sides = _profile(shape, seat.bead.mm, seat.face)
    with np.errstate(divide="ignore"):
        reach = 1 / np.hypot(np.cos(turn) / tops, np.sin(turn) / sides)
    if isinstance(shape, solids.Slab | solids.Torus | solids.Box):
        reach = np.full_like(TABLE, reach.max())
    along = TABLE * axis_length(shape, seat)
    return 2 * float(np.hypot(np.diff(along), np.diff(reach)).sum())


def loose_end_mm3(shape: solids.Solid, seat: Seat, length_mm: float) -> float:
    """Volume in mm³ of the loose end kept for a join: its length × the part's section where it enters what it sits on.

    The root of a figure, beads and parts without a shape keep none.
    """
    if seat.on is None or seat.bead.mm or isinstance(shape, solids.Nothing) or length_mm <= 0:
        return 0.0
    length = axis_length(shape, seat)
    t = seat.by if seat.by is not None else min(0.5, max(0.1, seat.sink_mm / length))
    top, side = section(shape, seat, t)
    if isinstance(shape, solids.Torus):
        return 0.0  # a ring is laid on and felted round its rim
    if isinstance(shape, solids.Slab):
        low, high = shape.span_at(t * length)
        return length_mm * (high - low) * shape.thickness_mm
    if isinstance(shape, solids.Box):
        return length_mm * 4 * top * side
    wire = shape.wire_mm if isinstance(shape, solids.Wrap) else 0.0
    return length_mm * np.pi * (top * side - wire * wire / 4)
