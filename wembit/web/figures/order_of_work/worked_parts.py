"""The parts of a version as the core's order of work wants them."""

from __future__ import annotations

import json
import math
from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from wembit.core.craft.armature import PIPE_CLEANER, WIRE, Wire
from wembit.core.grams.details import BORDER, LINE, PATCH, SPOTS, drawn_mark, kind_of
from wembit.core.pose.carrying import FootWire
from wembit.core.pose.skin_marks import area_of, length_of
from wembit.core.work.worked import Wool, Worked
from wembit.web import numbers
from wembit.web.figures.models import Part, Version
from wembit.web.figures.size_words import sizes
from wembit.web.figures.to_core.estimating import LOOSE_END, FigurePlan, PartPlan
from wembit.web.figures.to_core.seating import placed_part
from wembit.web.figures.to_core.wiring import feet_of, wire_of
from wembit.web.studio.models import Studio

THICK = (
    "thickness_mm",
    "tube_diameter_mm",
    "diameter1_mm",
)  # the sizes that say how thick a shape is, where it has one

WIRES = {WIRE: "wire", PIPE_CLEANER: "pipe cleaner"}


def worked(version: Version, parts: Sequence[Part], plan: FigurePlan) -> list[Worked]:
    """The parts in their order, with wools, wires, sizes and the numbers of their templates."""
    by_key = {other.part.key: other for other in plan.parts}
    numbered = {part.key: n for n, part in enumerate((p for p in parts if p.shape["kind"] != "none"), 1)}
    found = [_worked(part, by_key.get(part.key), version, numbered.get(part.key, 0)) for part in parts]
    feet = {key: foot for foot in feet_of(parts) for key in foot.parts}
    return [_with_foot(part, feet[part.key]) if part.key in feet else part for part in found]


def _with_foot(part: Worked, foot: FootWire) -> Worked:
    """The part with the one wire of its foot."""
    return replace(part, foot=foot.parts, spans_mm=foot.spans_mm, cut_list=((foot.pieces, foot.cut_mm),))


def _worked(part: Part, plan: PartPlan | None, version: Version, template: int) -> Worked:
    studio, wire, seat = version.studio, wire_of(part), part.seat
    lengths = {size.name: size.mm for size in sizes(part.shape) if size.name != "wire_mm"}
    said = [numbers.length(length, studio)[0] for length in lengths.values()]
    size = f"{' × '.join(said)} {numbers.length(0, studio)[1]}" if said else ""
    if said and (seat.get("row") or {}).get("size", 1) != 1:
        size += f", the last of the row {100 * seat['row']['size']:.0f} % of it"
    loose = studio.habits.get(LOOSE_END, 0.0) if part.loose_end_mm is None else part.loose_end_mm
    thick = next((lengths[name] for name in THICK if name in lengths), min(lengths.values(), default=0.0))
    return Worked(
        part.key, part.name, part.kind, part.count, seat.get("on"), part.firmness or "",
        tuple(_wool(layer, part) for layer in plan.layers) if plan else (), _wire_words(wire, studio) if wire else "",
        bead_mm=seat.get("bead_mm", 0.0), shank_mm=seat.get("shank_mm", 0.0), loose_mm=loose, size=size,
        shape=part.shape["kind"], thick_mm=thick, long_mm=max(lengths.values(), default=seat.get("length_mm", 0.0)),
        cut_list=tuple(wire.cuts) if wire else (), loop=bool(wire and wire.loop_mm),
        doubled=bool(wire and wire.doubled), through=bool(wire and wire.in_pairs), bare_mm=wire.bare_mm if wire else 0.0,
        former=bool(wire and wire.former),
        line=seat.get("line", ""), at=seat.get("t", 0.5), round_=seat.get("angle"),
        hosts=tuple(dict.fromkeys(filter(None, [seat.get("on"), *(copy.get("on") for copy in seat.get("copies", []))]))),
        template=template, outline=json.dumps(part.shape.get("outline", "")),
    )  # fmt: skip


def _wire_words(wire: Wire, studio: Studio) -> str:
    """Of what it is cut."""
    return " ".join(filter(None, [" ".join(numbers.length(wire.gauge_mm, studio)), wire.make.words, WIRES[wire.kind]]))


def _wool(each: Any, part: Part) -> Wool:
    grams, rule, item = each.grams, each.layer.rule, each.item
    area = grams.rule_g / grams.cover_g_m2 * 10_000 if grams.cover_g_m2 else 0.0
    coat = each.layer.role == "coat"
    how, pieces, long, wide = _detail(rule, part) if each.layer.role == "detail" else ("", 1, 0.0, 0.0)
    return Wool(
        each.layer.role, item.name if item else each.layer.slot.name, each.layer.slot.name, grams.middle,
        grams.trimmed_g or 0.0, area, grams.rule_g / rule["grams_per_cm"] if coat else 0.0, rule.get("pulled_mm", 0.0),
        rule.get("finished_mm", 0.0), item.form if item else "", item.breed if item else "",
        row_mm=rule.get("row_spacing_mm", 0.0), folded=bool(rule.get("folded")), share=rule.get("share", 1.0), how=how,
        pieces=pieces, long_mm=long, wide_mm=wide, t=rule.get("t", 0.5),
        angle=rule.get("angle"), felting=item.source.felting if item else "",
    )  # fmt: skip


def _detail(rule: dict, part: Part) -> tuple[str, int, float, float]:
    """How a detail is measured, how many there are on a piece, and how long and wide one is."""
    how = kind_of(rule)
    match how:
        case "spots":
            return SPOTS, rule["spots"], rule["across_mm"], rule["across_mm"]
        case "line":
            return LINE, 1, rule["line_mm"], rule["width_mm"]
        case "border":
            return BORDER, 1, 0.0, rule["border_mm"]
        case "drawn":
            return _drawn(rule, part)
    if width := part.seat.get("width_mm"):
        return LINE, 1, rule["area_mm2"] / width, width
    pieces, stretch = rule.get("pieces", 1), rule.get("stretch", 1.0)
    wide = math.sqrt(4 * rule["area_mm2"] / pieces / math.pi / stretch)
    return how, pieces, max(wide, wide * stretch), min(wide, wide * stretch)


def _drawn(rule: dict, part: Part) -> tuple[str, int, float, float]:
    """The same of what was drawn by hand: a patch as the round one of its area."""
    placed, mark = placed_part(part), drawn_mark(rule)
    if mark.width_mm:
        return LINE, len(mark.flanks()), length_of(placed.shape, placed.seat, mark.points), mark.width_mm
    wide = math.sqrt(4 * area_of(placed.shape, placed.seat, mark) / len(mark.flanks()) / math.pi)
    return PATCH, len(mark.flanks()), wide, wide
