"""A figure as faces in space that a browser can turn: the same placed skins and dresses as in `views`, in fewer points.

A face is a plane ring of points that runs counter-clockwise for who sees it from outside, in one colour. Marks lie as faces
of their own a hair above the skin. Lines and the locks of coats are strokes.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

import numpy as np

from wembit.core.pose.mesh import ROUND, line_on, surface
from wembit.core.pose.placing import Placed, axis_length
from wembit.core.shape import solids

from .drawn_marks import rims
from .marks import AT_AN_END, Mark, across, cap_reach, cap_sheets, face_rim, mark_half, spot_rims
from .surface import Coat, Zone, disc_rim, lock_ends, stretch
from .views import Dress

FINE_MM, LARGE_MM = 18.0, 40.0  # what is that thick has more points along it, and round it
MOST_ROWS, FEW_ROWS, PATCH_ROWS, PATCH_COLUMNS = 9, 6, 7, 5
POINTED_MM = 0.05  # an end so small is a point
LIFT_MM, SHEET_LIFT_MM = 0.25, 1.2  # so high a mark lies over its skin; so much nearer it counts
MOST_LOCKS = 260  # of a coat
STROKES = {"thread": 0.6, "lock": 2.4}


@dataclass
class Turned:
    """Points (n, 3) in mm; faces as (colour, points), in runs that hang together: `pieces` says how many faces each has and
    how many mm nearer it counts than it lies, since it stands out of what it sits on; `bands`: how many faces in turn are
    drawn at once, since they do not hide each other; strokes as (colour, width in mm, points).
    """

    points: list[np.ndarray] = field(default_factory=list)
    faces: list[tuple[str, list[int]]] = field(default_factory=list)
    pieces: list[tuple[int, float]] = field(default_factory=list)
    bands: list[int] = field(default_factory=list)
    strokes: list[tuple[str, float, list[int]]] = field(default_factory=list)
    count: int = 0

    def add_points(self, points: np.ndarray) -> np.ndarray:
        """The numbers of new points, shaped as they are."""
        flat = points.reshape(-1, 3)
        self.points.append(flat)
        first, self.count = self.count, self.count + len(flat)
        return np.arange(first, self.count).reshape(points.shape[:-1])

    def add_piece(
        self, faces: Sequence[tuple[str, Sequence[int]]], middle: np.ndarray, band: int, lift: float = 0.0
    ) -> None:
        """Faces that close round a middle, turned so that they are seen from outside; `band` of them to a band."""
        every = np.concatenate(self.points)
        volume = 0.0
        for _, ring in faces:
            corner = every[list(ring)] - middle
            volume += float(np.einsum("ij,ij->", np.broadcast_to(corner[0], corner[1:-1].shape),
                                      np.cross(corner[1:-1], corner[2:])))  # fmt: skip
        self.faces += [(paint, list(ring) if volume >= 0 else list(ring)[::-1]) for paint, ring in faces]
        self.pieces.append((len(faces), lift))
        self.bands += [min(band, len(faces) - first) for first in range(0, len(faces), band)]

    def add_sheet(self, paint: str, ring: np.ndarray, out: np.ndarray) -> None:
        """A single ring of points that is seen from where `out` points."""
        numbers = self.add_points(ring + out * LIFT_MM).tolist()
        normal = sum(np.cross(a, b) for a, b in zip(ring - ring[0], np.roll(ring - ring[0], -1, 0), strict=True))
        self.faces.append((paint, numbers if float(np.asarray(normal) @ out) >= 0 else numbers[::-1]))
        self.pieces.append((1, SHEET_LIFT_MM))
        self.bands.append(1)


def turned(pieces: Sequence[Placed], dresses: Mapping[str, Dress]) -> Turned:
    """Everything that can be seen of placed pieces; `dresses` by part name."""
    found = Turned()
    for seed, piece in enumerate(pieces):
        dress, line = dresses.get(piece.name, Dress("")), piece.seat.line.kind
        points = surface(piece)
        if line and line != "patch":
            way = np.array(line_on(piece))
            width = piece.seat.line.width_mm or STROKES.get(line, 1.2)
            found.strokes.append((dress.paint, width, found.add_points(way).tolist()))
        elif line == "patch" or points.shape[1] == 1:
            _patch(found, piece, dress)
        elif isinstance(piece.part.shape, solids.Slab) and not piece.seat.bead.mm:
            _slab(found, piece, dress, points)
        else:
            _solid(found, piece, dress, points, seed)
    return found


def _patch(found: Turned, piece: Placed, dress: Dress) -> None:
    """A small upright patch on the skin, as `surface.patch` draws it."""
    if piece.out is None:
        return
    aside = np.cross([0, 0, 1.0], piece.out)
    half = max(piece.seat.line.width_mm, 16.0) ** 0.5 / 2
    corners = [(-0.8, -1), (0.8, -1), (0.8, 0.7), (0, 1.2), (-0.8, 0.7)]
    ring = np.array([piece.joints[0] + (aside * x + np.array([0, 0, 1.0]) * z) * half for x, z in corners])
    found.add_sheet(dress.paint, ring, piece.out)


def _slab(found: Turned, piece: Placed, dress: Dress, points: np.ndarray) -> None:
    front, back = found.add_points(points[0]).tolist(), found.add_points(points[1]).tolist()
    count = len(front)
    sides = [(dress.paint, [front[k], back[k], back[(k + 1) % count], front[(k + 1) % count]]) for k in range(count)]
    found.add_piece([(dress.paint, front), (dress.paint, back[::-1]), *sides], points[:2].mean(axis=(0, 1)), count + 2)
    normal = points[0].mean(axis=0) - points[1].mean(axis=0)
    normal = normal / (np.linalg.norm(normal) or 1)
    bands = len(found.bands)
    for mark in dress.marks:
        if _over_an_end(mark):
            for one, two in cap_sheets(piece, mark):
                found.add_sheet(mark.paint, one, normal)
                found.add_sheet(mark.paint, two, -normal)
        else:
            found.add_sheet(mark.paint, *face_rim(piece, mark))
    for spots in dress.spots:
        for rim, out in spot_rims(piece, spots):
            found.add_sheet(spots.paint, rim, out)
    for marking in dress.drawn:
        for rim, out in rims(piece, marking):
            found.add_sheet(marking.paint, rim, out)
    found.bands[bands - 1 :] = [sum(found.bands[bands - 1 :])]  # what lies on a flat piece is drawn with it


def _over_an_end(mark: Mark) -> bool:
    return not AT_AN_END < mark.t < 1 - AT_AN_END and not mark.blunt


def _solid(found: Turned, piece: Placed, dress: Dress, points: np.ndarray, seed: int) -> None:
    ring = isinstance(piece.part.shape, solids.Torus)
    kept_rows, kept_columns = _thinned(points, ring)
    kept = points[kept_rows][:, kept_columns]
    numbers = found.add_points(kept)
    rows, columns = kept.shape[:2]
    angles = np.abs((np.array(kept_columns) * 360 / points.shape[1] + 180) % 360 - 180)
    ways = _ways(kept)
    faces: list[tuple[str, list[int]]] = []
    for row in range(rows if ring else rows - 1):
        after = (row + 1) % rows
        for column in range(columns):
            beside = (column + 1) % columns
            t, round_ = (ways[row] + ways[after]) / 2, (angles[column] + angles[beside]) / 2
            quad = [numbers[row, column], numbers[after, column], numbers[after, beside], numbers[row, beside]]
            if not ring:
                t = 0.0 if row == 0 else 1.0 if after == rows - 1 else t  # an end takes the colour of its very end
            faces.append((_painted(piece, dress, t, round_), [int(each) for each in quad]))
    if not ring:
        for end, t, rim in ((numbers[0], 0.0, kept[0]), (numbers[-1][::-1], 1.0, kept[-1])):
            if np.ptp(rim, axis=0).max() < POINTED_MM:
                continue
            faces.append((_painted(piece, dress, t, 0.0), end.tolist()))
    band = len(faces) if piece.seat.bead.mm else columns
    found.add_piece(faces, kept.mean(axis=(0, 1)), band, piece.seat.bead.mm / 2)
    if not piece.seat.bead.mm:
        _marks(found, piece, dress)
        for coat in dress.coats:
            _coat(found, piece, points, coat, seed)


def _thinned(points: np.ndarray, ring: bool) -> tuple[list[int], list[int]]:
    """The rows and columns that are kept: fewer of a small thing."""
    size = float(np.linalg.norm(points.max(axis=(0, 1)) - points.min(axis=(0, 1))))
    thick = float(np.linalg.norm(points - points.mean(axis=1, keepdims=True), axis=-1).max()) * 2
    every = 1 if thick > LARGE_MM else 2 if size > FINE_MM / 2 else 3
    most = MOST_ROWS if thick > FINE_MM else FEW_ROWS
    rows = range(len(points)) if len(points) <= most else np.unique(np.linspace(0, len(points) - 1, most).astype(int))
    if ring:
        rows = range(0, len(points), every)
        every = max(1, every - 1)
    return [int(row) for row in rows], list(range(0, points.shape[1], every))


def _ways(points: np.ndarray) -> np.ndarray:
    """How far along each row lies, root 0 to tip 1."""
    middles = points.mean(axis=1)
    way = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(middles, axis=0), axis=1))])
    return way / (way[-1] or 1)


def _painted(piece: Placed, dress: Dress, t: float, angle: float) -> str:
    """The colour of the skin at t, so many degrees from the top."""
    paint = dress.paint
    for zone in (*dress.zones, *(coat.zone for coat in dress.coats)):
        if _in(zone, t, angle):
            paint = zone.paint
    for mark in dress.marks:
        if _over_an_end(mark) and piece.part.shape.axis_mm:
            far = cap_reach(piece, mark)
            paint = mark.paint if (t >= 1 - far if mark.t > 0.5 else t <= far) else paint
    return paint


def _in(zone: Zone, t: float, angle: float) -> bool:
    return zone.along[0] <= t <= zone.along[1] and 180 * zone.low <= angle <= 180 * zone.high


def _marks(found: Turned, piece: Placed, dress: Dress) -> None:
    middle = (piece.joints[0] + piece.joints[-1]) / 2
    for paint, area in sorted(dress.discs, key=lambda each: -each[1]):
        rim, look = disc_rim(middle, piece, area)
        if len(rim):
            found.add_sheet(paint, rim, look)
    for spots in dress.spots:
        for rim, out in spot_rims(piece, spots):
            found.add_sheet(spots.paint, rim, out)
    for marking in dress.drawn:
        pieces = rims(piece, marking)
        for ring, out in pieces:
            found.add_sheet(marking.paint, ring, out)
        found.bands[len(found.bands) - len(pieces) :] = [len(pieces)] if pieces else []
    for mark in dress.marks:
        if not _over_an_end(mark):
            sheets = list(_pieces_of(piece, mark))
            for ring, out in sheets:
                found.add_sheet(mark.paint, ring, out)
            found.bands[len(found.bands) - len(sheets) :] = [len(sheets)] if sheets else []


def _pieces_of(piece: Placed, mark: Mark) -> Iterator[tuple[np.ndarray, np.ndarray]]:
    """A mark on a round skin as small rings, each with its way outward."""
    length = axis_length(piece.part.shape, piece.seat)
    rows, ways = [], []
    for ahead in np.sin(np.linspace(-np.pi / 2, np.pi / 2, PATCH_ROWS)):
        t = mark.t + ahead * mark.long_mm / 2 / length
        if not 0 <= t <= 1:
            continue
        points, out = across(piece, t, mark.angle, mark_half(mark, ahead), length)
        if len(points) < PATCH_COLUMNS:
            continue
        kept = np.linspace(0, len(points) - 1, PATCH_COLUMNS).astype(int)
        rows.append(points[kept])
        ways.append(out[kept])
    for (low, high), out in zip(pairwise(rows), ways, strict=False):
        for k in range(PATCH_COLUMNS - 1):
            outward = out[k] / (np.linalg.norm(out[k]) or 1)
            yield np.array([low[k], high[k], high[k + 1], low[k + 1]]), outward


def _coat(found: Turned, piece: Placed, points: np.ndarray, coat: Coat, seed: int) -> None:
    """Some of the locks of a coat, evenly over it."""
    if points.shape[1] != ROUND or points.shape[0] <= 2:
        return
    ends, _ = lock_ends(piece, stretch(points, coat.zone.along), coat, seed)
    kept = ends[:: max(1, len(ends) // MOST_LOCKS)]
    for pair in found.add_points(kept).tolist():
        found.strokes.append((coat.zone.paint, 0.9, pair))
