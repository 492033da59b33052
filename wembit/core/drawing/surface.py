"""What lies on a skin as it is drawn: zones, locks, and the stray fibres of its edge."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from shapely.geometry import Polygon, box
from shapely.geometry.base import BaseGeometry

from wembit.core.pose.gaze import Gaze
from wembit.core.pose.mesh import ROUND, UP, Ring, rings_of, together
from wembit.core.pose.placing import Placed, cross
from wembit.core.shape.solids import Sphere

WHOLE = (0.0, 1.0)
SLIVER_MM2, GRAZING = 1e-6, 0.02  # faces seen so much from behind still close the edge
LOCKS_A_FACE = 2
GLINT, GLINT_AWAY = 0.24, 0.42  # a glint, as shares of an eye's radius: its size and how far from the middle
EDGE_EVERY_MM, HAIRS_IN_ALL, HAIR_STEPS = 1.9, 1400, (56, 40, 28, 20)


@dataclass(frozen=True)
class Zone:
    """Skin in its own colour on both flanks: from the share `low` to the share `high` of the way round from the top, over
    the stretch `along` of the axis (root 0, tip 1).
    """

    paint: str
    low: float
    high: float
    along: tuple[float, float] = WHOLE


def under(paint: str, share: float, along: tuple[float, float] = WHOLE) -> Zone:
    """The zone that takes a share of the skin from the underside round."""
    return Zone(paint, 1 - share, 1.0, along)


def band(paint: str, edge: float, width: float) -> Zone:
    """A border `width` wide, as a share of the way round, along the line at `edge`."""
    return Zone(paint, max(0.0, edge - width / 2), min(1.0, edge + width / 2))


@dataclass(frozen=True)
class Coat:
    """Locks standing `length_mm` over a zone of the skin, from the top round."""

    zone: Zone
    length_mm: float


def skin_zone(points: np.ndarray, zone: Zone, gaze: Gaze) -> BaseGeometry:
    """The part of a zone that faces the viewer, as a geometry."""
    low, high = 180 * zone.low, 180 * zone.high
    angles, following = _from_top(), np.roll(np.arange(ROUND), -1)
    span = angles[following] - angles
    ends = np.sort(np.clip(np.stack([(low - angles) / span, (high - angles) / span]), 0, 1), axis=0)
    kept = ends[1] - ends[0] >= 1e-6
    flat = gaze.flat(points)
    step = (flat[:, following] - flat)[:, kept]
    start, end = (flat[:, kept] + step * share[None, kept, None] for share in ends)
    over, back = end[1:] - start[:-1], start[1:] - end[:-1]
    area = over[..., 0] * back[..., 1] - over[..., 1] * back[..., 0]
    depth = points @ gaze.near
    ahead = (depth - depth.mean(axis=1, keepdims=True))[:, kept]
    # the faces of a mesh run one way round: those on the near side all turn as the near ones do
    turn = 1 if (area * (ahead[1:] + ahead[:-1])).sum() >= 0 else -1
    seen = area * turn > -GRAZING * np.abs(area).max(initial=0)
    columns = np.flatnonzero(kept)
    breaks = np.flatnonzero((np.diff(columns) > 1) | (seen[:, 1:] != seen[:, :-1]).any(axis=0)) + 1
    sheets = np.split(np.arange(len(columns)), breaks)
    return together([part for sheet in sheets if len(sheet) for part in _sheet(seen, sheet[0], sheet[-1], start, end)])


def _sheet(seen: np.ndarray, left: int, right: int, start: np.ndarray, end: np.ndarray) -> list:
    """The stretches that are seen of the columns from `left` to `right`, which are seen alike, as valid polygons: round
    along the line `start` of the first column, across, back along the line `end` of the last one, and across again.
    """
    edges = np.flatnonzero(np.diff(np.concatenate([[False], seen[:, left], [False]]).astype(int)))
    found = []
    for first, last in zip(edges[::2], edges[1::2], strict=True):
        up, down = start[first : last + 1, left], end[first : last + 1, right][::-1]
        ring = np.concatenate([up, end[last, left:right], down, end[first, left:right][::-1]])
        sheet = Polygon(ring)
        found.append(sheet if sheet.is_valid else sheet.buffer(0))
    return [sheet for sheet in found if sheet.area > SLIVER_MM2]


def stretch(points: np.ndarray, along: tuple[float, float]) -> np.ndarray:
    """The sections of a stretch of the axis, its ends put in between."""
    if along == WHOLE:
        return points
    middles = points.mean(axis=1)
    way = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(middles, axis=0), axis=1))])
    way = way / (way[-1] or 1)
    wanted = np.concatenate([[along[0]], way[(way > along[0]) & (way < along[1])], [along[1]]])
    flat = points.reshape(len(points), -1)
    rows = [np.interp(wanted, way, flat[:, column]) for column in range(flat.shape[1])]
    return np.stack(rows, axis=1).reshape(len(wanted), *points.shape[1:])


def _from_top() -> np.ndarray:
    """Angle from the top of each point of a section, 0 to 180."""
    return np.abs((np.arange(ROUND) * 360 / ROUND + 180) % 360 - 180)


def locks(piece: Placed, points: np.ndarray, coat: Coat, gaze: Gaze, seed: int) -> list[Ring]:
    """Strokes of the coat's locks that are seen, leaning back from the tip."""
    ends, out = lock_ends(piece, points, coat, seed)
    return _strokes(gaze.flat(ends[out @ gaze.near >= -0.35]))


def lock_ends(piece: Placed, points: np.ndarray, coat: Coat, seed: int) -> tuple[np.ndarray, np.ndarray]:
    """Root and tip of every lock of a coat, (n, 2, 3) in mm, and the way outward at each, (n, 3)."""
    chance = np.random.default_rng(seed)
    wanted = (_from_top() <= 180 * coat.zone.high + 1) & (_from_top() >= 180 * coat.zone.low - 1)
    axis = piece.frames[0].axis
    here = np.repeat(points[1:-1], LOCKS_A_FACE, axis=1)
    count = here.shape[:2]
    beside = np.repeat(np.roll(points[1:-1], -1, axis=1), LOCKS_A_FACE, axis=1) - here
    ahead = np.repeat(points[2:], LOCKS_A_FACE, axis=1) - here
    base = here + beside * chance.random(count)[..., None] + ahead * chance.random(count)[..., None]
    away = base - points.mean(axis=(0, 1))
    out = away - axis * ((away @ axis) * 0.55)[..., None]
    out = out / np.maximum(np.linalg.norm(out, axis=-1), 1e-9)[..., None]
    lean = out - axis * (0.45 + 0.2 * chance.random(count))[..., None]
    lean = lean / np.maximum(np.linalg.norm(lean, axis=-1), 1e-9)[..., None]
    tip = base + lean * (coat.length_mm * (0.85 + 0.3 * chance.random(count)))[..., None]
    grown = np.broadcast_to(np.repeat(wanted, LOCKS_A_FACE)[None, :], count)
    return np.stack([base[grown], tip[grown]], axis=1), out[grown]


def _strokes(ends: np.ndarray) -> list[Ring]:
    """Strokes (n, 2, 2) as pairs of points."""
    return [[(a, b), (c, d)] for (a, b), (c, d) in ends.tolist()]


def hairs_each(pieces: int) -> int:
    """How many stray fibres a piece of a figure of so many has at most: fewer where there are more pieces, in steps, so that
    one piece more or less seldom changes the others.
    """
    share = HAIRS_IN_ALL / max(1, pieces)
    return next((step for step in HAIR_STEPS if step <= share), HAIR_STEPS[-1])


def fuzz(outlines: Sequence, most: int) -> list[list[Ring]]:
    """Short stray fibres along each outline: the edge of felt; fewer of them the longer the edge, at most so many. One list an
    outline, which hangs on nothing but that outline.
    """
    lines, owners = [], []
    for owner, shape in enumerate(outlines):
        for polygon in getattr(shape, "geoms", [shape]):
            if polygon.geom_type == "Polygon" and not polygon.is_empty:
                lines += [polygon.exterior, *polygon.interiors]
                owners += [owner] * (1 + len(polygon.interiors))
    found: list[list[Ring]] = [[] for _ in outlines]
    if not lines:
        return found
    lengths = shapely.length(lines)
    every = np.maximum(EDGE_EVERY_MM, lengths / most)
    counts = np.ceil(lengths / every).astype(int)
    which = np.repeat(np.arange(len(lines)), counts)
    nth = np.arange(len(which)) - np.repeat(np.cumsum(counts) - counts, counts)
    spots = nth * every[which]
    along = np.array(lines, dtype=object)[which]
    here = shapely.get_coordinates(shapely.line_interpolate_point(along, spots))
    ahead = shapely.get_coordinates(shapely.line_interpolate_point(along, np.minimum(spots + 0.2, lengths[which])))
    way = ahead - here
    size = np.hypot(way[:, 0], way[:, 1])
    keep = size > 1e-9
    nth, which, here, way = nth[keep], which[keep], here[keep], way[keep] / size[keep, None]
    turn = np.where(shapely.is_ccw(lines), 1, -1)[which]
    out = np.stack([way[:, 1], -way[:, 0]], axis=-1) * turn[:, None]
    chance = [_scattered(nth, counts[which], turn) for turn in range(4)]
    long = 0.5 + 0.9 * chance[0]
    slant = 1.2 * (chance[1] + chance[2] + chance[3] - 1.5)  # about normal, its standard deviation 0.6
    tips = here + (out + way * slant[:, None]) * long[:, None]
    for line, stroke in zip(which.tolist(), _strokes(np.stack([here - out * 0.5, tips], axis=1)), strict=True):
        found[owners[line]].append(stroke)
    return found


def _scattered(nth: np.ndarray, of: np.ndarray, turn: int) -> np.ndarray:
    """Numbers from 0 to 1 that look drawn by lot and are the same each time: of the nth of so many hairs, in a turn."""
    return np.modf(np.abs(np.sin(12.9898 * (nth + 1) + 78.233 * of + 37.719 * turn)) * 43758.5453)[0]


def patch(piece: Placed, gaze: Gaze) -> list[Ring]:
    """A small upright patch on the skin, where it faces the viewer."""
    out = piece.out
    if out is None or float(out @ gaze.near) < 0.2:
        return []
    across = cross(UP, out)
    middle, half = piece.joints[0], math.sqrt(max(piece.seat.line.width_mm, 16.0)) / 2
    corners = [(-0.8, -1), (0.8, -1), (0.8, 0.7), (0, 1.2), (-0.8, 0.7)]
    points = np.array([middle + (across * x + UP * z) * half for x, z in corners])
    return [list(map(tuple, gaze.flat(points).tolist()))]


def eye_of(piece: Placed, ring: Ring, lid_paint: str, gaze: Gaze) -> list[tuple[str, list[Ring]]]:
    """A glint where an eye looks (`gaze`: degrees up from forward) and the lid of its host's wool over its share."""
    across, up = np.array(ring).T
    u, v, r = (across.min() + across.max()) / 2, (up.min() + up.max()) / 2, (up.max() - up.min()) / 2
    found = []
    if piece.seat.bead.gaze is not None:
        turn = math.radians(piece.seat.bead.gaze)
        away = np.array([math.cos(turn), math.cos(turn) * piece.mirror, math.sin(turn)])  # forward, outward and up
        middle = np.array([u, v]) + GLINT_AWAY * r * gaze.flat(away)
        turns = np.linspace(0, 2 * math.pi, 14, endpoint=False)
        glint = [
            (float(middle[0] + GLINT * r * math.cos(a)), float(middle[1] + GLINT * r * math.sin(a))) for a in turns
        ]
        found.append(("#ffffff", [glint]))
    if piece.seat.bead.lid > 0 and lid_paint:
        edge = v + r * (1 - 2 * min(1.0, piece.seat.bead.lid))
        found.append((lid_paint, rings_of(Polygon(ring).intersection(box(u - 2 * r, edge, u + 2 * r, v + 2 * r)))))
    return found


def disc(middle: np.ndarray, piece: Placed, area: float, gaze: Gaze) -> list[Ring]:
    """A round spot of that area on a ball, where it faces the viewer."""
    rim, look = disc_rim(middle, piece, area)
    return [list(map(tuple, gaze.flat(rim).tolist()))] if len(rim) and float(look @ gaze.near) >= 0 else []


def disc_rim(middle: np.ndarray, piece: Placed, area: float) -> tuple[np.ndarray, np.ndarray]:
    """The rim of a round spot of that area on a ball, (n, 3) in mm, and where it looks: outward and a little forward."""
    shape = piece.part.shape
    if piece.out is None or not isinstance(shape, Sphere):
        return np.zeros((0, 3)), UP
    look = piece.out + np.array([0.9, 0, 0])
    look = look / np.linalg.norm(look)
    frame = cross(look, UP)
    frame = frame / np.linalg.norm(frame)
    over = cross(frame, look)
    ball, radius = shape.diameter_mm / 2, math.sqrt(area / math.pi)
    centre = middle + look * math.sqrt(max(0.0, ball**2 - radius**2))
    turns = np.linspace(0, 2 * math.pi, 20, endpoint=False)
    return np.array([centre + (frame * math.cos(a) + over * math.sin(a)) * radius for a in turns]), look
