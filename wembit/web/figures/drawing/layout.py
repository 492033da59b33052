"""A version laid out as drawings in mm: the core's views, in the colours of a colourway, kept while nothing changes."""

from __future__ import annotations

import hashlib
import json
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import delta_e_2000
from wembit.core.contract.requests import SHAPE
from wembit.core.craft.materials import FIRMNESS
from wembit.core.drawing.cross_section import Inside, Laid, cut_open, inside_of
from wembit.core.drawing.marks import Mark, Spots, line, patches
from wembit.core.drawing.scale_objects import BREADTH_MM, LENGTH_MM, hand
from wembit.core.drawing.surface import WHOLE, Coat, Zone, band, under
from wembit.core.drawing.views import Dress, View, grounded, view
from wembit.core.errors import BadInput
from wembit.core.grams.details import ROUND, ROW, area_mm2, drawn_mark, evenly
from wembit.core.pose.gaze import FRONT, SIDE, Gaze
from wembit.core.pose.placing import Seat, section
from wembit.core.shape.solids import solid
from wembit.web.caches import by_content
from wembit.web.figures.models import Layer, Part, Version
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, PartPlan, edge_of
from wembit.web.figures.to_core.seating import placed

BEAD, BENCH = "#16181a", "#d4d4d4"
EDGE, EDGE_ALIKE, ALIKE = (
    0.28,
    0.75,
    14.0,
)  # of an outline; the ΔE00 from the grey below which the stronger one is drawn
MARGIN = 8.0
MOST_LINES = 300  # of a grid, each way
ROUND_FROM, GENTLE = 8, 0.7  # points of a ring that is drawn round, and the tangent of the bend that still is


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
    mirror: int = 1
    middle: tuple[float, float] = (0.0, 0.0)
    felted: bool = False
    nth: int = 0  # of its part's pieces, from 0

    @property
    def edge(self) -> float:
        """How strongly its outline is drawn."""
        return edge_shade(self.fill)

    @property
    def locks(self) -> list[tuple[str, str]]:
        """The locks of its coats, without the stray fibres of its edge, which come last."""
        return self.hairs[:-1] if self.felted else self.hairs


@dataclass(frozen=True)
class Picture:
    """A view ready for a template. All in mm: `left` to `left + width`, ground at y 0, upwards negative. `long` and
    `tall` are the figure's own extents.
    """

    which: str
    shapes: list[Shape]
    left: float
    top: float
    width: float
    height: float
    grid: str
    fault: str = ""
    long: float = 0.0
    tall: float = 0.0

    @property
    def box(self) -> str:
        return f"{self.left:.1f} {self.top:.1f} {self.width:.1f} {self.height:.1f}"


def pictures(version: Version, parts: Sequence[Part], palette: Palette, margin: float = MARGIN) -> dict[str, Picture]:
    """Side and front of a version. A fault in a part gives pictures without shapes that say so."""
    return pictures_from(version, parts, palette, {"side": SIDE, "front": FRONT}, margin)


def pictures_from(
    version: Version, parts: Sequence[Part], palette: Palette, gazes: Mapping[str, Gaze], margin: float = MARGIN
) -> dict[str, Picture]:
    """A version from several gazes. A fault in a part gives pictures without shapes that say so.

    What is kept is geometry by its content, and may serve another studio: names are written in afterwards.
    """
    dresses = dresses_of(parts, palette)
    seen = {name: (gaze.turn, gaze.tilt) for name, gaze in gazes.items()}
    mark = content_mark(parts, dresses, [margin, seen])
    kept = by_content.get_or_make(("drawing", mark), "", lambda: _lay_out(parts, dresses, gazes, margin))
    names = {part.key: part.name for part in parts}
    return {which: named(picture, names) for which, picture in kept.items()}


def named(picture: Picture, names: dict[str, str]) -> Picture:
    """The picture with the parts' names on its shapes."""
    return replace(picture, shapes=[replace(shape, name=names[shape.key]) for shape in picture.shapes])


def content_mark(parts: Sequence[Part], dresses: Mapping[str, Dress], more: Any = None) -> str:
    """What a drawing of the parts hangs on, in short: their shapes, seats and colours, and `more`."""
    stuff = [[part.key, part.count, part.shape, part.seat, repr(dresses[part.key])] for part in parts]
    return hashlib.sha256(json.dumps([more, stuff]).encode()).hexdigest()


def dresses_of(parts: Sequence[Part], palette: Palette) -> dict[str, Dress]:
    """The colours of each part by its key."""
    return {part.key: _dress(part, palette) for part in parts}


def _lay_out(
    parts: Sequence[Part], dresses: dict[str, Dress], gazes: Mapping[str, Gaze], margin: float
) -> dict[str, Picture]:
    try:
        pieces = grounded(placed(parts))
        return {which: _picture(which, view(pieces, dresses, gaze), margin) for which, gaze in gazes.items()}
    except BadInput as fault:
        return {which: Picture(which, [], -50, -60, 100, 70, "", fault.what) for which in gazes}


def _dress(part: Part, palette: Palette) -> Dress:
    """The colours of a part: the first cover (or what it is made of), further covers from the underside, coats, spots."""
    layers = list(part.layers.all())
    covers = [layer for layer in layers if layer.role == "cover"]
    ground = covers or [layer for layer in layers if layer.role in ("core", "weighed", "detail")]
    paint = palette.colour(ground[0].slot_id) if ground else part.seat.get("bead_srgb") or BEAD
    zones = [under(palette.colour(layer.slot_id), layer.rule.get("share", 1.0), _along(layer)) for layer in covers[1:]]
    coats = _coats(layers, palette)
    spots, marks, discs, drawn = [], [], [], []
    for layer in layers:
        if layer.role != "detail":
            continue
        rule, colour, edge = layer.rule, palette.colour(layer.slot_id), edge_of(layer, layers)
        if "border_mm" in rule:
            zones.append(band(colour, edge, rule["border_mm"] / _half_girth(part)))
        elif part.kind == "eye":
            discs.append((colour, area_mm2(rule, solid(SHAPE(part.shape, "shape")), Seat.of(part.seat), edge)))
        elif "drawn" in rule:
            drawn.append(drawn_mark(rule, colour))
        elif "spots" in rule:
            laid = evenly(rule["spots"], rule.get("laid", ROW), rule.get("t", 0.5), rule.get("angle", 0.0))
            spots.append(Spots(colour, rule["across_mm"], laid))
        elif part.shape["kind"] != "none":
            marks += _marks(colour, rule)
    return Dress(paint, tuple(zones), coats, tuple(spots), tuple(marks), tuple(discs), tuple(drawn))


def _marks(colour: str, rule: dict) -> list[Mark]:
    """A line or a patch where it lies: by itself in the middle of the flank."""
    t, angle = rule.get("t", 0.5), rule.get("angle", 90.0)
    if "line_mm" in rule:
        return [line(colour, rule["line_mm"], rule["width_mm"], t, angle, round_=rule.get("runs") == ROUND)]
    return patches(colour, rule["area_mm2"], t, angle, rule.get("stretch", 1.0), rule.get("pieces", 1))


def _along(layer: Layer) -> tuple[float, float]:
    """The stretch of the axis that a layer lies on."""
    return tuple(layer.rule.get("along", WHOLE))


def _half_girth(part: Part) -> float:
    """Half the way round the part's middle in mm."""
    return max(1.0, math.pi / 2 * sum(section(solid(SHAPE(part.shape, "shape")), Seat.of(part.seat), 0.5)))


def _picture(which: str, seen: View, margin: float) -> Picture:
    left, bottom, right, top = seen.bounds
    shapes = [
        Shape(
            key=piece.name,
            name="",
            fill=piece.paint,
            path=closed_path(piece.rings),
            zones=[(paint, closed_path(rings)) for paint, rings in piece.zones if rings],
            hairs=[(paint, _open(rings)) for paint, rings in piece.hairs if rings],
            line=piece.stroke and (piece.stroke[0], _open([piece.stroke[1]]), piece.stroke[2]),
            mirror=piece.mirror,
            felted=piece.edged,
            nth=piece.nth,
            middle=_middle(piece.rings or ([piece.stroke[1]] if piece.stroke else [])),
        )
        for piece in seen.pieces
    ]
    frame = (left - margin, -top - margin, right - left + 2 * margin, top - bottom + 2 * margin)
    return Picture(which, shapes, *frame, grid_over(left, right, top, bottom), long=right - left, tall=top - bottom)


def _middle(rings: Any) -> tuple[float, float]:
    """The middle of the first ring's extents, y down."""
    if not rings:
        return 0.0, 0.0
    across, up = zip(*rings[0], strict=True)
    return (min(across) + max(across)) / 2, -(min(up) + max(up)) / 2


def cut_open_picture(version: Version, parts: Sequence[Part], palette: Palette, plan: FigurePlan) -> Picture:
    """The figure cut along its middle, from the side."""
    insides = {other.part.key: _inside(other, palette) for other in plan.parts}
    names = {part.key: part.name for part in parts}
    try:
        cut = cut_open(placed(parts), insides)
    except BadInput as fault:
        return Picture("cut open", [], -50, -60, 100, 70, "", fault.what)
    return named(_picture("cut open", cut, MARGIN), names)


def _inside(plan: PartPlan, palette: Palette) -> Inside:
    """What a part is made of, as the cut shows it."""
    density = FIRMNESS.get(plan.part.firmness, FIRMNESS["medium"])
    laid = [
        Laid(
            layer.layer.role,
            palette.colour(layer.layer.slot_id),
            layer.layer.rule.get("share", 1.0),
            bool(layer.item and layer.item.form == "filling"),
            layer.layer.rule.get("thickness_mm", 0.0),
            (layer.grams.cover_g_m2 or 0.0) * layer.layer.rule.get("coats", 1.0),
        )
        for layer in plan.layers
    ]
    return inside_of(laid, _coats([layer.layer for layer in plan.layers], palette), density)


def _coats(layers: Sequence[Layer], palette: Palette) -> tuple[Coat, ...]:
    """The coats among the layers, in the order in which they are planted."""
    return tuple(
        Coat(
            Zone(palette.colour(layer.slot_id), 0.0, layer.rule.get("share", 1.0), _along(layer)),
            layer.rule["finished_mm"],
        )
        for layer in layers
        if layer.role == "coat"
    )


def beside_a_hand(side: Picture) -> tuple[Picture, str]:
    """The frame in which a figure's side view stands beside a hand and a coin, and the hand's outline."""
    gap, tall = 14.0, max(side.tall, LENGTH_MM)
    from_left = side.left + side.width + gap + BREADTH_MM / 2
    outline = closed_path([[(x + from_left, y) for x, y in ring] for ring in hand()])
    right = from_left + BREADTH_MM / 2 + 40
    frame = Picture("beside a hand", side.shapes, side.left, -tall - MARGIN, right - side.left, tall + 2 * MARGIN,
                    grid_over(side.left + MARGIN, right - MARGIN, tall))  # fmt: skip
    return frame, outline


@lru_cache(maxsize=2048)
def edge_shade(colour: str) -> float:
    """How strongly an outline is drawn round a colour, 0 to 1: more where it is hard to tell from the grey it lies on."""
    if not colour:
        return EDGE
    return EDGE_ALIKE if delta_e_2000(lab(colour), lab(BENCH)) < ALIKE else EDGE


def grid_over(left: float, right: float, top: float, bottom: float = 0.0) -> str:
    """Lines every 10 mm, from the ground up; ten times as far apart where there would be more than a few hundred."""
    step = 10
    while max(right - left, top - bottom) / step > MOST_LINES:
        step *= 10
    first, last = int(left // step) * step, int(right // step + 1) * step
    low, high = int(min(0.0, bottom) // step) * step, int(top // step + 1) * step
    upright = "".join(f"M{x} {-low}V{-high}" for x in range(first, last + 1, step))
    return upright + "".join(f"M{first} {-y}H{last}" for y in range(low, high + 1, step))


def together(one: Picture, two: Picture) -> Picture:
    """The frame that holds both pictures."""
    left, top = min(one.left, two.left), min(one.top, two.top)
    right = max(one.left + one.width, two.left + two.width)
    bottom = max(one.top + one.height, two.top + two.height)
    grid = grid_over(left + MARGIN, right - MARGIN, -top - MARGIN)
    return Picture(one.which, [], left, top, right - left, bottom - top, grid)


def side_by_side(one: Picture, two: Picture) -> list[Picture]:
    """Both in one frame, so that they stand on one ground and are drawn to one scale."""
    frame = together(one, two)
    return [
        replace(each, left=frame.left, top=frame.top, width=frame.width, height=frame.height, grid=frame.grid)
        for each in (one, two)
    ]


def closed_path(rings: Any) -> str:
    """Rings as path data: round where an outline bends gently, with its corners where it has them."""
    return "".join(_ring_path(ring) for ring in rings)


def _ring_path(ring: Any) -> str:
    if len(ring) < ROUND_FROM:
        return "M" + "L".join(f"{u:.1f} {-v:.1f}" for u, v in ring) + "Z"
    words = []
    for (a, b), (u, v), (c, d) in zip(ring[-1:] + ring[:-1], ring, ring[1:] + ring[:1], strict=True):
        ahead, behind = (c - u, d - v), (u - a, v - b)
        cross, along = behind[0] * ahead[1] - behind[1] * ahead[0], behind[0] * ahead[0] + behind[1] * ahead[1]
        gentle = along > 0 and abs(cross) < GENTLE * along
        words.append(
            f"{'Q' if gentle else 'L'}{u:.1f} {-v:.1f}{' ' if gentle else 'L'}{(u + c) / 2:.1f} {-(v + d) / 2:.1f}"
        )
    (a, b), (u, v) = ring[-1], ring[0]
    return f"M{(a + u) / 2:.1f} {-(b + v) / 2:.1f}" + "".join(words) + "Z"


def _open(rings: Any) -> str:
    return "".join("M" + "L".join(f"{u:.1f} {-v:.1f}" for u, v in ring) for ring in rings)
