"""A figure cut open along its middle: cores, soft layers, covers at their thickness, and wires, to scale from the side."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from wembit.core.craft.materials import felt_mm
from wembit.core.pose.gaze import SIDE, Gaze
from wembit.core.pose.mesh import outline, rings_of, surface
from wembit.core.pose.placing import Placed
from wembit.core.shape import solids

from .surface import WHOLE, Coat, Zone, locks, skin_zone, stretch, under
from .views import Drawn, View, grounded

WIRE = "#3a3a3a"
HALVINGS = 18


@dataclass(frozen=True)
class Inside:
    """What a part is made of where it is cut: `cores` as (paint, share) from the outside in, covers as
    (thickness in mm, zone), coats as they stand, soft layers as (paint, thickness in mm, share from the underside).
    """

    cores: tuple[tuple[str, float], ...]
    coats: tuple[Coat, ...] = ()
    covers: tuple[tuple[float, Zone], ...] = ()
    paddings: tuple[tuple[str, float, float], ...] = ()


@dataclass(frozen=True)
class Laid:
    """A layer as the cut shows it: what it does, its paint and share; whether it is a filling; how thick a soft layer is,
    in mm; how heavy a cover is, in g/m² of skin, all its coats together.
    """

    role: str
    paint: str
    share: float = 1.0
    is_filling: bool = False
    thickness_mm: float = 0.0
    cover_g_m2: float = 0.0


def inside_of(layers: Sequence[Laid], coats: Sequence[Coat], density_g_cm3: float) -> Inside:
    """What a part is made of, its layers in the order in which they are laid and its coats in that of planting. A filling
    lies in the middle, wool round it; a cover is as thick as its weight at the part's density; on a coat, or on another
    cover, it lies from the underside round.
    """
    cores: list[tuple[bool, str, float]] = []
    paddings: list[tuple[str, float, float]] = []
    covers: list[tuple[float, Zone]] = []
    for layer in layers:
        if layer.role == "core":
            cores.append((layer.is_filling, layer.paint, layer.share))
        elif layer.role == "padding":
            paddings.append((layer.paint, layer.thickness_mm, layer.share))
        elif layer.role == "cover":
            below = covers or coats
            zone = under(layer.paint, layer.share) if below else Zone(layer.paint, 0.0, layer.share)
            covers.append((felt_mm(layer.cover_g_m2, density_g_cm3), zone))
    from_outside = tuple((paint, share) for _, paint, share in sorted(cores))
    return Inside(from_outside, tuple(coats), tuple(covers), tuple(paddings))


def cut_open(pieces: Sequence[Placed], insides: Mapping[str, Inside]) -> View:
    """Side view of what lies in the middle plane, cut; what lies beside it as a bare outline. Bounds as in `view`."""
    gaze = SIDE
    drawn, bounds = [], []
    pieces = grounded(pieces)
    for piece in pieces:
        points = surface(piece)
        shape = outline(piece, points, gaze)
        if shape.is_empty:
            continue
        bounds.append(shape.bounds)
        beside = piece.mirror < 0 or any(other.name == piece.name and other.mirror < 0 for other in pieces)
        cut_piece = Drawn(piece.name, "", rings_of(shape))
        if not beside and piece.name in insides and not piece.seat.bead.mm:
            _fill(cut_piece, piece, points, shape, insides[piece.name], gaze)
        if isinstance(piece.part.shape, solids.Wrap):
            way = list(map(tuple, gaze.flat(np.array(piece.joints)).tolist()))
            cut_piece.stroke = (WIRE, way, piece.part.shape.wire_mm)
        drawn.append((beside, cut_piece))
    if not drawn:
        return View([], (0, 0, 0, 0))
    strands = [np.array(rings) for _, cut_piece in drawn for _, rings in cut_piece.hairs if rings]
    left = min([bound[0] for bound in bounds] + [float(s[..., 0].min()) for s in strands])
    end = max([bound[2] for bound in bounds] + [float(s[..., 0].max()) for s in strands])
    top = max([bound[3] for bound in bounds] + [float(s[..., 1].max()) for s in strands])
    ordered = [cut_piece for beside, cut_piece in drawn if not beside] + [
        cut_piece for beside, cut_piece in drawn if beside
    ]
    return View(ordered, (left, 0.0, end, top))


def _fill(
    found: Drawn,
    piece: Placed,
    points: np.ndarray,
    shape: BaseGeometry,
    inside: Inside,
    gaze: Gaze,
) -> None:
    body = shape
    for thick, zone in inside.covers:
        ring = shape.difference(shape.buffer(-thick))
        if (zone.low, zone.high) != WHOLE:
            ring = ring.intersection(skin_zone(points, zone, gaze))
        body = body.difference(ring)
        found.zones.append((zone.paint, rings_of(ring)))
    for seed, coat in enumerate(inside.coats):
        strokes = locks(piece, stretch(points, coat.zone.along), coat, gaze, seed)
        found.hairs.append((coat.zone.paint, strokes))
    for paint, thick, share in inside.paddings:
        ring = body.difference(body.buffer(-thick))
        found.zones.append((paint, rings_of(ring.intersection(skin_zone(points, Zone(paint, 1 - share, 1.0), gaze)))))
        body = body.difference(ring) if share >= 1 else body
    if inside.cores:
        paint = inside.cores[0][0]
        found.paint = paint
        left = 1.0
        for (_, outer), (paint, _) in zip(inside.cores, inside.cores[1:], strict=False):
            left -= outer
            found.zones.append((paint, rings_of(_middle(body, left ** (2 / 3)))))


def _middle(shape: BaseGeometry, share: float) -> BaseGeometry:
    """The middle of a shape, `share` of its area, as deep everywhere."""
    low, high = 0.0, (shape.area / np.pi) ** 0.5
    for _ in range(HALVINGS):
        depth = (low + high) / 2
        low, high = (depth, high) if shape.buffer(-depth).area > share * shape.area else (low, depth)
    inset = shape.buffer(-low)
    return inset if not inset.is_empty else Polygon()
