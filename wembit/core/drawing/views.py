"""A figure as it is seen from anywhere: outlines in mm, to scale, in the order in which they are painted.

Orthographic projection. Side: x to the right, z up, seen from −y. Front: y to the right, z up, seen from +x. A piece's
outline is the union of the hulls of neighbouring sections, which is its true projection for every solid here. Pieces are
painted back to front; which of two is in front is decided where they overlap, on a coarse grid of depths.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np
from shapely.geometry.base import BaseGeometry

from wembit.core.pose.gaze import VIEWS, Gaze
from wembit.core.pose.mesh import ROUND, UP, Ring, convex, hulls, line_on, outline, rings_of, surface
from wembit.core.pose.placing import Placed
from wembit.core.pose.skin import outside
from wembit.core.pose.skin_marks import Drawn as Marking
from wembit.core.shape import solids

from .drawn_marks import drawn_on
from .marks import Mark, Spots, mark_on, spots_on
from .surface import Coat, Zone, disc, eye_of, fuzz, hairs_each, locks, patch, skin_zone, stretch

CELLS = 36
EDGE_MM = 0.4  # an outline reaches so far round the points of its mesh
KEPT_LOOKS = 600  # pieces; some 30 kB each


@dataclass(frozen=True)
class Dress:
    """The colours of a piece: its ground, zones painted over it, coats in the order in which they are planted, spots and
    marks, discs (paint, area in mm²) where it looks, markings drawn by hand.
    """

    paint: str
    zones: tuple[Zone, ...] = ()
    coats: tuple[Coat, ...] = ()
    spots: tuple[Spots, ...] = ()
    marks: tuple[Mark, ...] = ()
    discs: tuple[tuple[str, float], ...] = ()
    drawn: tuple[Marking, ...] = ()


@dataclass
class Look:
    """How a piece looks by itself: its outline and rings, zones, the locks of its coats, the line that it is, the stray
    fibres of its edge.
    """

    outline: BaseGeometry
    rings: list[Ring]
    zones: list[tuple[str, list[Ring]]] = field(default_factory=list)
    locks: list[tuple[str, list[Ring]]] = field(default_factory=list)
    stroke: tuple[str, Ring, float] | None = None
    edge: list[Ring] | None = None


@dataclass
class Drawn:
    """One piece on paper: closed rings of its ground and of each zone, hairs and lines as open strokes, all in mm.
    `edged`: the last of its hairs are the stray fibres of its edge. `nth` of its name, from 0, as they were placed.
    """

    name: str
    paint: str
    rings: list[Ring]
    zones: list[tuple[str, list[Ring]]] = field(default_factory=list)
    hairs: list[tuple[str, list[Ring]]] = field(default_factory=list)
    stroke: tuple[str, Ring, float] | None = None
    mirror: int = 1
    edged: bool = False
    nth: int = 0


@dataclass
class View:
    """Pieces back to front, and the bounds (left, bottom, right, top) in mm of felt and locks, without the stray fibres of
    the edge; seen from level the lowest point is on 0.
    """

    pieces: list[Drawn]
    bounds: tuple[float, float, float, float]


def view(pieces: Sequence[Placed], dresses: dict[str, Dress], which: str | Gaze) -> View:
    """The figure from one of `VIEWS` or any other gaze; `dresses` by part name. An empty figure has empty bounds.

    How a piece looks is kept while it stays where it is, so that a change of one part draws that part anew.
    """
    gaze = VIEWS[which] if isinstance(which, str) else which
    pieces = grounded(pieces)
    hairs = hairs_each(len(pieces))
    looks, depths = [], []
    for piece in pieces:
        flat = surface(piece).reshape(-1, 3)
        looks.append(_look(_Sitter(piece, dresses.get(piece.name, Dress("")), gaze, hairs)))
        depths.append((flat @ gaze.right, flat @ gaze.up, flat @ gaze.near))
    solid = [(u, v) for (u, v, _), look in zip(depths, looks, strict=True) if look.rings]
    if not solid:
        return View([], (0, 0, 0, 0))
    _felt_edges(pieces, looks, hairs)
    strands = [np.array(rings) for look in looks for _, rings in look.locks if rings]
    left = min([u.min() for u, _ in solid] + [s[..., 0].min() for s in strands])
    bottom = min([v.min() for _, v in solid] + [s[..., 1].min() for s in strands]) if gaze.tilt else 0.0
    top = max([v.max() for _, v in solid] + [s[..., 1].max() for s in strands])
    end = max([u.max() for u, _ in solid] + [s[..., 0].max() for s in strands])
    drawn = [_drawn(piece, look, dresses, gaze) for piece, look in zip(pieces, looks, strict=True)]
    of_name: Counter[str] = Counter()
    for each in drawn:
        each.nth = of_name[each.name]
        of_name[each.name] += 1
    order = paint_order(depths, (left, bottom, end, top), beads_over(pieces, gaze.near), standing_out(pieces, gaze))
    return View([drawn[index] for index in order], (float(left), float(bottom), float(end), float(top)))


def _felt_edges(pieces: Sequence[Placed], looks: Sequence[Look], most: int) -> None:
    """Give every felted piece that has none yet the stray fibres of its edge, at most so many each, all of them at once."""
    bare = [
        look
        for piece, look in zip(pieces, looks, strict=True)
        if look.edge is None and look.rings and not piece.seat.bead.mm and piece.seat.line.kind != "patch"
    ]
    for look, hairs in zip(bare, fuzz([look.outline for look in bare], most), strict=True):
        look.edge = hairs


def _drawn(piece: Placed, look: Look, dresses: dict[str, Dress], gaze: Gaze) -> Drawn:
    paint = dresses.get(piece.name, Dress("")).paint
    zones, hairs = list(look.zones), list(look.locks)
    if look.edge:
        hairs.append((paint, look.edge))
    if piece.seat.bead.mm and piece.host is not None and look.rings:
        lid = dresses.get(piece.host.name, Dress("")).paint
        zones += eye_of(piece, look.rings[0], lid, gaze)
    return Drawn(piece.name, paint, look.rings, zones, hairs, look.stroke, piece.mirror, bool(look.edge))


def grounded(pieces: Sequence[Placed]) -> list[Placed]:
    """The pieces with the lowest point of what is felted on the ground; those that stand there already are the same."""
    skins = [surface(piece) for piece in pieces]
    low = min((float(skin[..., 2].min()) for skin in skins if skin.shape[1] > 1), default=0.0)
    if abs(low) < 1e-9:
        return list(pieces)
    shift = -low * UP
    moved = {
        id(piece): replace(
            piece, joints=[joint + shift for joint in piece.joints], skin=surface(piece) + shift, box=None, outside=None
        )
        for piece in pieces
    }
    for piece in moved.values():
        piece.host = moved.get(id(piece.host)) if piece.host is not None else None
    return list(moved.values())


class _Sitter:
    """A piece as it is looked at, the same as any other that lies in the same place in the same dress."""

    def __init__(self, piece: Placed, dress: Dress, gaze: Gaze, hairs: int) -> None:
        self.piece, self.dress, self.gaze = piece, dress, gaze
        seat = piece.seat
        place = b"".join(np.asarray(each, dtype=float).tobytes() for each in (surface(piece), *piece.joints))
        out = b"" if piece.out is None else np.asarray(piece.out, dtype=float).tobytes()
        told = (seat.line.kind, seat.bead.mm, seat.line.width_mm, seat.face, piece.mirror)
        host = b"" if piece.host is None else surface(piece.host).tobytes()
        self.key = (place, out, host, piece.part.shape, told, dress, gaze, hairs)

    def __hash__(self) -> int:
        return hash(self.key)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Sitter) and self.key == other.key


def _out_of_its_host(piece: Placed, gaze: Gaze) -> BaseGeometry:
    """The outline of what stands out of the piece it sits on: what is sunk into that is not seen."""
    points = surface(piece)
    alone = piece.host is None or isinstance(piece.host.part.shape, solids.Nothing)
    if alone or piece.seat.bead.mm or points.shape[1] == 1:
        return outline(piece, points, gaze)
    out, sunk = outside(piece)
    if not sunk or len(out) < 3:
        return outline(piece, points, gaze)
    seen = hulls(gaze.flat(out)[None])[0]
    if seen.area == 0:
        return outline(piece, points, gaze)
    if convex(piece.part.shape):
        return seen
    return outline(piece, points, gaze).intersection(seen.buffer(EDGE_MM, quad_segs=2))


@lru_cache(maxsize=KEPT_LOOKS)
def _look(sitter: _Sitter) -> Look:
    piece, dress, gaze = sitter.piece, sitter.dress, sitter.gaze
    points, line = surface(piece), piece.seat.line.kind
    shape = _out_of_its_host(piece, gaze)
    look = Look(shape, rings_of(shape))
    if line == "patch":
        look.rings = patch(piece, gaze)
    elif line:
        way = list(map(tuple, gaze.flat(np.array(line_on(piece))).tolist()))
        look.stroke = (dress.paint, way, piece.seat.line.width_mm or {"thread": 0.6, "lock": 2.4}.get(line, 1.2))
    if look.rings and points.shape[1] == ROUND and points.shape[0] > 2:
        _paint_skin(look, piece, dress, gaze)
    if look.rings and not piece.seat.bead.mm:
        for spots in dress.spots:
            look.zones.append((spots.paint, spots_on(piece, spots, gaze)))
        for mark in dress.marks:
            look.zones.append((mark.paint, rings_of(mark_on(piece, mark, gaze).intersection(shape))))
        for marking in dress.drawn:
            look.zones.append((marking.paint, rings_of(drawn_on(piece, marking, gaze).intersection(shape))))
    if piece.out is not None and isinstance(piece.part.shape, solids.Sphere):
        middle = (piece.joints[0] + piece.joints[1]) / 2
        for paint, area in sorted(dress.discs, key=lambda each: -each[1]):
            look.zones.append((paint, disc(middle, piece, area, gaze)))
    return look


def _paint_skin(look: Look, piece: Placed, dress: Dress, gaze: Gaze) -> None:
    """Give the look its zones and the locks of its coats."""
    points = surface(piece)
    for zone in (*dress.zones, *(coat.zone for coat in dress.coats)):
        ground = skin_zone(stretch(points, zone.along), zone, gaze)
        look.zones.append((zone.paint, rings_of(ground.intersection(look.outline))))
    for seed, coat in enumerate(dress.coats):
        strokes = locks(piece, stretch(points, coat.zone.along), coat, gaze, seed)
        look.locks.append((coat.zone.paint, strokes))


def beads_over(pieces: Sequence[Placed], near: np.ndarray) -> dict[tuple[int, int], bool]:
    """For each bead and the piece it sits on: whether the bead is in front, since it stands out of that skin.

    A bead is smaller than a few cells of the grid, so it is told by the side of its host on which it sits.
    """
    found = {}
    for index, piece in enumerate(pieces):
        host = next((at for at, other in enumerate(pieces) if other is piece.host), None)
        if piece.seat.bead.mm and host is not None:
            away = piece.axis_at(0.5)[0] - pieces[host].axis_at(0.5)[0]
            found[index, host] = bool(away @ near > -1e-6)
    return found


def standing_out(pieces: Sequence[Placed], gaze: Gaze) -> dict[tuple[int, int], tuple]:
    """For each piece and the one it sits on: what of the piece's skin stands out of its host, as (across, up, near)."""
    places = {id(piece): index for index, piece in enumerate(pieces)}
    found = {}
    for index, piece in enumerate(pieces):
        host, points = piece.host, surface(piece).reshape(-1, 3)
        at = places.get(id(host))
        if host is None or at is None or piece.seat.bead.mm or len(points) < ROUND:
            continue
        if isinstance(host.part.shape, solids.Nothing):
            continue
        out = outside(piece)[0]
        found[index, at] = (out @ gaze.right, out @ gaze.up, out @ gaze.near)
    return found


def paint_order(
    depths: Sequence[tuple],
    bounds: tuple[float, float, float, float],
    told: dict[tuple[int, int], bool],
    standing: dict[tuple[int, int], tuple],
) -> list[int]:
    """Indices back to front. A piece is behind another where, over the cells that both cover, it lies deeper.

    `told` says of some pairs whether the first is in front of the second; `standing` what of the first counts against the
    second, since the rest is sunk into it: where nothing of that is seen against it, the first is behind.
    """
    left, bottom, right_, top = bounds
    cell = max(right_ - left, top - bottom, 1e-6) / CELLS

    def nearest(seen: Sequence) -> np.ndarray:
        """The nearest depth of each in every cell, where it covers the cell."""
        u, v, near = (np.concatenate([each[k] for each in seen]) for k in range(3))
        owner = np.repeat(np.arange(len(seen)), [len(each[0]) for each in seen])
        column = np.clip(((u - left) / cell).astype(int), 0, CELLS + 1)
        row = np.clip(((v - bottom) / cell).astype(int), 0, CELLS + 1)
        best = np.full((len(seen), (CELLS + 2) ** 2), -np.inf)
        np.maximum.at(best, (owner, row * (CELLS + 2) + column), near)
        return best

    count = len(depths)
    grid = nearest(depths)
    covered = np.isfinite(grid)
    depth, where = np.where(covered, grid, 0.0), covered.astype(float)
    told = dict(told)
    if standing:
        hosts = [host for _, host in standing]
        ahead = nearest(list(standing.values())) - depth[hosts]
        sums = np.where(covered[hosts] & np.isfinite(ahead), ahead, 0.0).sum(axis=1)
        for pair, gap in zip(standing, sums, strict=True):
            told.setdefault(pair, bool(gap > 0))
    mean = depth.sum(axis=1) / np.maximum(where.sum(axis=1), 1)
    over_each = depth @ where.T  # the sum of the one's depths over the cells that the other covers too
    gaps, shared = over_each - over_each.T, where @ where.T > 0
    behind: dict[int, set[int]] = {index: set() for index in range(count)}  # what must be painted before it
    for one, two in np.argwhere(shared).tolist():
        if two != one and told.get((one, two), not told.get((two, one), gaps[one, two] <= 0)):
            behind[one].add(two)
    order: list[int] = []
    left_over = set(range(count))
    while left_over:
        free = [index for index in left_over if not (behind[index] & left_over)]
        following = min(free or left_over, key=lambda index: mean[index])
        order.append(following)
        left_over.remove(following)
    return order
