"""From stored parts to the core's estimate and back: what each layer of each part takes, of which item."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from wembit.core.colour.show_through import hiding_power
from wembit.core.contract.requests import SHAPE
from wembit.core.craft.materials import BREEDS, FILLING_DENSITY, LOSS_LOOSE_ENDS, LOSS_WORKED_OUT, SMALLEST_PIECE_G
from wembit.core.errors import BadInput
from wembit.core.grams import estimate as core
from wembit.core.grams.details import area_mm2, border_line, cover_ground, ground
from wembit.core.grams.small_pieces import Group, at_least_a_piece, group
from wembit.core.pose.placing import Seat
from wembit.core.pose.rows import Row
from wembit.core.pose.skin import loose_end_mm3
from wembit.core.shape.solids import Solid, solid
from wembit.web.figures.models import Colourway, Layer, Part, Version
from wembit.web.stash.models import Item
from wembit.web.stash.queries import colours

from .hands import counts_for, hand
from .seating import visible
from .wiring import wire_of

LOOSE_END = "loose_end_mm"  # the studio's habit
UNSEEN = ("core", "padding")
BARE = "#e9e2d2"  # the colour of undyed wool stands where a slot has no fibre yet


@dataclass(frozen=True)
class LayerPlan:
    """What a layer takes, of which item, and whether it is seen."""

    layer: Layer
    item: Item | None
    grams: core.LayerGrams
    seen: bool
    over: object = None  # the slot that a cover or a detail lies on
    pieces: int = 1
    counts_for: str = ""  # a firmness or a role, by which the studio's hands are known

    @property
    def floor_g(self) -> float:
        """No layer with anything in it takes less."""
        return SMALLEST_PIECE_G * self.pieces if self.grams.middle else 0.0


@dataclass(frozen=True)
class PartPlan:
    """What a part takes, layer by layer."""

    part: Part
    volume_mm3: float
    layers: list[LayerPlan]
    allowance: float = 0.0

    @property
    def grams(self) -> core.Range:
        return core.total([layer.grams for layer in self.layers])


@dataclass(frozen=True)
class Sum:
    """What one item comes to, over all layers that are seen or that are hidden, and of that in which part."""

    item: Item | None
    slot_name: str
    seen: bool
    grams: core.Range
    parts: tuple[tuple[str, float], ...] = ()

    def and_as_much_as(self, other: Sum) -> Sum:
        """This and another of the same item."""
        parts = dict(self.parts)
        for name, grams in other.parts:
            parts[name] = parts.get(name, 0.0) + grams
        return replace(self, grams=self.grams.plus(other.grams), parts=tuple(parts.items()))


@dataclass(frozen=True)
class FigurePlan:
    """`fault` stands in place of numbers when a part cannot be computed."""

    parts: list[PartPlan]
    all: core.Range
    fault: BadInput | None = None

    @property
    def added_g(self) -> float:
        """The middles of all wools added up: not the middle of the whole, since errors of different wools partly cancel."""
        return sum(need.grams.p50 for need in sums(self))

    def layers(self) -> list[LayerPlan]:
        return [layer for part in self.parts for layer in part.layers]


@dataclass(frozen=True)
class Palette:
    """A colourway ready for use: item and colour of each slot."""

    items: Mapping[Any, Item]
    colours: Mapping[Any, str]

    @classmethod
    def of(cls, colourway: Colourway | None) -> Palette:
        if colourway is None:
            return cls({}, {})
        chosen = chosen_items(colourway)
        seen = colours(colourway.studio, [item.pk for item in chosen.values()])
        return cls.dyed(colourway, chosen, seen)

    @classmethod
    def dyed(cls, colourway: Colourway, chosen: Mapping[Any, Item], seen: Mapping[Any, str]) -> Palette:
        """A colourway whose slots have these fibres, in the colours that these fibres have; others as they are thought of."""
        thought = {UUID(slot): colour for slot, colour in colourway.thought.items()}
        return cls(chosen, thought | {slot: seen.get(item.pk, BARE) for slot, item in chosen.items()})

    def colour(self, slot_id: object) -> str:
        return self.colours.get(slot_id, BARE)


def chosen_items(colourway: Colourway) -> dict[UUID, Item]:
    """The fibre of each slot that has one."""
    return {choice.slot_id: choice.item for choice in colourway.choices.select_related("item__own_breed")}


def request_of(version: Version, parts: Sequence[Part], palette: Palette) -> dict:
    """The core's request for a version in a colourway; fibres are named by item, or by slot without one."""
    grounds = grounds_of(parts)
    seen, habit = visible(parts), version.studio.habits.get(LOOSE_END, 0.0)
    rows = [_part(part, palette, grounds[part.key], seen, habit) for part in parts]
    for part, row in zip(parts, rows, strict=True):
        for layer in row["layers"]:
            known = hand(version.studio, counts_for(layer, part.firmness))
            if known.n:
                layer |= {"bias": known.bias, "sigma": known.sigma}
    return {"parts": rows}


@dataclass(frozen=True)
class Ground:
    """The slots that are seen of a part, and of what it sits on, before anything is laid on; None where there is no wool."""

    own: object
    host: object


def grounds_of(parts: Sequence[Part]) -> dict[str, Ground]:
    """What lies under the details and the covers of each part, by key."""
    layers = {part.key: [(layer.role, layer.slot_id) for layer in part.layers.all()] for part in parts}
    hosts = {part.key: part.seat.get("on") for part in parts}
    return {
        part.key: Ground(ground(part.key, layers, hosts), ground(hosts[part.key] or "", layers, hosts))
        for part in parts
    }


def _part(part: Part, palette: Palette, under: Ground, seen: dict[str, float], habit: float) -> dict:
    layers = list(part.layers.all())
    shape, seat = solid(SHAPE(part.shape, "shape")), Seat.of(part.seat)
    end = loose_end_mm3(shape, seat, habit if part.loose_end_mm is None else part.loose_end_mm)
    row = {
        "name": part.name,
        "count": part.count,
        "shape": part.shape,
        "allowance": LOSS_WORKED_OUT if end else LOSS_LOOSE_ENDS,
        "visible": seen.get(part.key, 1.0) if part.visible is None else part.visible,
        "loose_end_mm3": end,
        "armature_mm3": armature_mm3(part),
        "layers": [
            _layer(layer, palette, lies_on(layer, layers[:n], under), shape, seat, edge_of(layer, layers))
            for n, layer in enumerate(layers)
        ],
    }
    if part.allowance is not None:
        row["allowance"] = part.allowance
    if part.firmness:
        row["firmness"] = part.firmness
    return row


def armature_mm3(part: Part) -> float:
    """The room that wire takes in one piece, unscaled; of a wound part what there is besides the wire that its shape knows."""
    wire = wire_of(part)
    if wire is None:
        return 0.0
    known = math.pi / 4 * wire.gauge_mm**2 * wire.length_mm if part.shape["kind"] == "wrap" else 0.0
    return max(0.0, wire.room_mm3 - known)


def edge_of(layer: Layer, layers: Sequence[Layer]) -> float:
    """Where a border of the layer runs; see `details.border_line`."""
    covers = [(other.slot_id, other.rule.get("share", 1.0)) for other in layers if other.role == "cover"]
    return border_line(covers, layer.over_id)


def lies_on(layer: Layer, beneath: Sequence[Layer], under: Ground) -> object:
    """The slot that a layer lies on: a cover on what is beneath it, a detail on what is seen of the part."""
    if layer.role == "cover":
        return cover_ground(layer.over_id, [(other.role, other.slot_id) for other in beneath], under.host)
    return layer.over_id or under.own


def _layer(layer: Layer, palette: Palette, over: object, shape: Solid, seat: Seat, edge: float) -> dict:
    item = palette.items.get(layer.slot_id)
    row: dict[str, Any] = {"role": layer.role, "fibre": str(item.pk if item else layer.slot_id)}
    if layer.role == "detail":
        row["area_mm2"] = area_mm2(layer.rule, shape, seat, edge)
    else:
        row |= {key: value for key, value in layer.rule.items() if key != "along"}
    if layer.role == "core" and item and item.form == "filling" and not {"firmness", "density_g_cm3"} & set(row):
        row["density_g_cm3"] = FILLING_DENSITY
    if layer.role in ("cover", "detail"):
        breed = item.source if item and item.breed else BREEDS["merino"]
        srgb = palette.colour(layer.slot_id)
        row |= {
            "micron_um": breed.micron_um,
            "srgb": srgb,
            "over": palette.colour(over),
            "tau": hiding_power(srgb),
        }
    return row


def plan_figure(version: Version, parts: Sequence[Part], palette: Palette) -> FigurePlan:
    """What the figure takes, part by part. `parts` come with their layers prefetched."""
    try:
        request = request_of(version, parts, palette)
        estimated = core.estimate(request)
    except BadInput as fault:
        return FigurePlan([PartPlan(part, 0.0, []) for part in parts], core.Range(0, 0, 0), fault)
    plans = []
    grounds = grounds_of(parts)
    for part, row, grams in zip(parts, request["parts"], estimated.parts, strict=True):
        covered = any(layer.role in ("cover", "coat") for layer in part.layers.all())
        stored = list(part.layers.all())
        layers = [
            LayerPlan(
                layer,
                palette.items.get(layer.slot_id),
                at_least_a_piece(in_a_row(found, part), part.count),
                not (layer.role in UNSEEN and covered),
                lies_on(layer, stored[:n], grounds[part.key]),
                part.count,
                counts_for(row["layers"][n], part.firmness),
            )
            for n, (layer, found) in enumerate(zip(stored, grams.layers, strict=True))
        ]
        plans.append(PartPlan(part, grams.volume_mm3, layers, row["allowance"]))
    return FigurePlan(plans, core.total([layer.grams for plan in plans for layer in plan.layers]))


def in_a_row(grams: core.LayerGrams, part: Part) -> core.LayerGrams:
    """What a layer takes where the pieces of a row differ in size: by their skins or their volumes."""
    row = part.seat.get("row")
    if not row or part.count < 2:
        return grams
    share = Row.of(row).mean(grams.role, part.count)
    trimmed = None if grams.trimmed_g is None else grams.trimmed_g * share
    return replace(grams, rule_g=grams.rule_g * share, trimmed_g=trimmed)


def small_things(plan: FigurePlan) -> list[Group]:
    """The layers that are less than a scale can read, as the groups that are weighed instead: one a wool."""
    wools: dict[object, list[tuple[str, int, float]]] = {}
    for part in plan.parts:
        for layer in part.layers:
            name = part.part.name if len(part.layers) == 1 else f"{layer.layer.slot.name} of the {part.part.name}"
            wool = layer.item.pk if layer.item else layer.layer.slot_id
            wools.setdefault(wool, []).append((name, part.part.count, layer.grams.middle / part.part.count))
    return [found for rows in wools.values() if (found := group(rows))]


def sums(plan: FigurePlan, count: int = 1) -> list[Sum]:
    """Grams by item, seen and hidden apart, for `count` figures, largest first."""
    groups: dict[tuple, list[LayerPlan]] = {}
    names: dict[tuple, dict[str, float]] = {}
    for part in plan.parts:
        for layer in part.layers:
            key = ((layer.item and layer.item.pk) or layer.layer.slot_id, layer.seen)
            groups.setdefault(key, []).append(layer)
            by_part = names.setdefault(key, {})
            by_part[part.part.name] = by_part.get(part.part.name, 0.0) + layer.grams.middle * count
    found = []
    for key, alike in groups.items():
        grams = core.total([each.grams for each in alike])
        grams = grams.at_least(sum(each.floor_g for each in alike))
        times = core.Range(grams.p10 * count, grams.p50 * count, grams.p90 * count)
        found.append(Sum(alike[0].item, alike[0].layer.slot.name, alike[0].seen, times, tuple(names[key].items())))
    return sorted(found, key=lambda each: -each.grams.p50)
