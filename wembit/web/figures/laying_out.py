"""A version laid out as drawings in mm: the core's views, in the colours of a colourway, kept while nothing changes."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from dataclasses import dataclass

from django.core.cache import cache

from wembit.core.drawing import Coat, Dress, View, Zone, view
from wembit.core.errors import BadInput
from wembit.core.placing import PlacedPart, Seat, place
from wembit.core.requests import SHAPE
from wembit.core.solids import solid

from .estimating import Palette
from .models import Part, Version

BEAD = "#16181a"


@dataclass(frozen=True)
class Shape:
    """One piece ready for a template: SVG path data, y down, in mm."""

    key: str
    name: str
    fill: str
    path: str
    zones: list[tuple[str, str]]
    hairs: list[tuple[str, str]]
    line: tuple[str, str, float] | None


@dataclass(frozen=True)
class Picture:
    """A view ready for a template. All in mm: `left` to `left + width`, ground at y 0, upwards negative."""

    which: str
    shapes: list[Shape]
    left: float
    top: float
    width: float
    height: float
    grid: str
    fault: str = ""

    @property
    def box(self) -> str:
        return f"{self.left:.1f} {self.top:.1f} {self.width:.1f} {self.height:.1f}"


def placed_part(part: Part, scale: float = 1.0) -> PlacedPart:
    """A stored part as placing wants it."""
    return PlacedPart(
        part.key, part.count, solid(SHAPE(part.shape, "shape")).scaled(scale), Seat.of(part.seat).scaled(scale)
    )


def pictures(version: Version, parts: Sequence[Part], palette: Palette, margin: float = 8.0) -> dict[str, Picture]:
    """Side and front of a version. A fault in a part gives pictures without shapes that say so."""
    dresses = {part.key: _dress(part, palette) for part in parts}
    stuff = [[part.key, part.count, part.shape, part.seat, repr(dresses[part.key])] for part in parts]
    mark = hashlib.sha256(json.dumps([version.scale, margin, stuff]).encode()).hexdigest()
    kept = cache.get(f"drawing-{mark}")
    if kept is None:
        kept = _lay_out(version, parts, dresses, margin)
        cache.set(f"drawing-{mark}", kept, 86_400)
    return kept


def _lay_out(version: Version, parts: Sequence[Part], dresses: dict[str, Dress], margin: float) -> dict[str, Picture]:
    names = {part.key: part.name for part in parts}
    try:
        pieces = place([placed_part(part, version.scale) for part in parts])
        return {which: _picture(which, view(pieces, dresses, which), names, margin) for which in ("side", "front")}
    except BadInput as fault:
        return {which: Picture(which, [], -50, -60, 100, 70, "", fault.what) for which in ("side", "front")}


def _dress(part: Part, palette: Palette) -> Dress:
    """The colours of a part: the first cover (or what it is made of), further covers from the underside, coat, discs."""
    layers = list(part.layers.all())
    covers = [layer for layer in layers if layer.role == "cover"]
    ground = covers or [layer for layer in layers if layer.role in ("core", "weighed", "detail")]
    coats = [layer for layer in layers if layer.role == "coat"]
    paint = palette.colour(ground[0].slot_id) if ground else BEAD
    zones = tuple(Zone(palette.colour(layer.slot_id), layer.rule.get("share", 1.0)) for layer in covers[1:])
    coat = None
    if coats:
        rule = coats[0].rule
        coat = Coat(palette.colour(coats[0].slot_id), rule.get("share", 1.0), rule["finished_mm"])
    discs = tuple((palette.colour(layer.slot_id), layer.rule["area_mm2"]) for layer in layers if layer.role == "detail")
    return Dress(paint, zones, coat, discs if part.kind == "eye" else ())


def _picture(which: str, found: View, names: dict[str, str], margin: float) -> Picture:
    left, _, right, top = found.bounds
    shapes = [
        Shape(
            key=piece.name,
            name=names[piece.name],
            fill=piece.paint,
            path=closed_path(piece.rings),
            zones=[(paint, closed_path(rings)) for paint, rings in piece.zones if rings],
            hairs=[(paint, _open(rings)) for paint, rings in piece.hairs if rings],
            line=piece.stroke and (piece.stroke[0], _open([piece.stroke[1]]), piece.stroke[2]),
        )
        for piece in found.pieces
    ]
    grid = "".join(
        f"M{x} 0V{-(int(top // 10) + 1) * 10}" for x in range(int(left // 10) * 10, int(right // 10 + 2) * 10, 10)
    )
    grid += "".join(
        f"M{int(left // 10) * 10} {-y}H{int(right // 10 + 1) * 10}" for y in range(0, int(top // 10 + 2) * 10, 10)
    )
    return Picture(which, shapes, left - margin, -top - margin, right - left + 2 * margin, top + 2 * margin, grid)


def closed_path(rings) -> str:
    return "".join("M" + "L".join(f"{u:.1f} {-v:.1f}" for u, v in ring) + "Z" for ring in rings)


def _open(rings) -> str:
    return "".join("M" + "L".join(f"{u:.1f} {-v:.1f}" for u, v in ring) for ring in rings)
