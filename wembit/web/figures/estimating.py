"""From stored parts to the core's estimate and back: what each layer of each part takes, of which item."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from wembit.core import estimate as core
from wembit.core.errors import BadInput
from wembit.core.fibres import BREEDS, FILLING_DENSITY
from wembit.web.stash.models import Item
from wembit.web.stash.queries import colours

from .models import Colourway, Layer, Part, Version

UNSEEN = ("core", "padding")
BARE = "#e9e2d2"  # the colour of undyed wool stands where a slot has no fibre yet


@dataclass(frozen=True)
class LayerPlan:
    layer: Layer
    item: Item | None
    grams: core.LayerGrams
    seen: bool


@dataclass(frozen=True)
class PartPlan:
    part: Part
    volume_mm3: float
    layers: list[LayerPlan]

    @property
    def grams(self) -> core.Range:
        return core.total([layer.grams for layer in self.layers])


@dataclass(frozen=True)
class Sum:
    """What one item comes to, over all layers that are seen or that are hidden."""

    item: Item | None
    slot_name: str
    seen: bool
    grams: core.Range


@dataclass(frozen=True)
class FigurePlan:
    """`fault` stands in place of numbers when a part cannot be computed."""

    parts: list[PartPlan]
    all: core.Range
    fault: BadInput | None = None

    def layers(self) -> list[LayerPlan]:
        return [layer for part in self.parts for layer in part.layers]


@dataclass(frozen=True)
class Palette:
    """A colourway ready for use: item and colour of each slot."""

    items: dict[object, Item]
    colours: dict[object, str]

    @classmethod
    def of(cls, colourway: Colourway | None) -> Palette:
        if colourway is None:
            return cls({}, {})
        chosen = {choice.slot_id: choice.item for choice in colourway.choices.select_related("item")}
        seen = colours(colourway.studio, [item.pk for item in chosen.values()])
        return cls(chosen, {slot: seen.get(item.pk, BARE) for slot, item in chosen.items()})

    def colour(self, slot_id) -> str:
        return self.colours.get(slot_id, BARE)


def request_of(version: Version, parts: Sequence[Part], palette: Palette) -> dict:
    """The core's request for a version in a colourway; fibres are named by item, or by slot without one."""
    return {"scale": version.scale, "parts": [_part(part, palette) for part in parts]}


def _part(part: Part, palette: Palette) -> dict:
    row = {
        "name": part.name,
        "count": part.count,
        "shape": part.shape,
        "allowance": part.allowance,
        "visible": part.visible,
        "layers": [_layer(layer, palette) for layer in part.layers.all()],
    }
    if part.firmness:
        row["firmness"] = part.firmness
    return row


def _layer(layer: Layer, palette: Palette) -> dict:
    item = palette.items.get(layer.slot_id)
    row = {"role": layer.role, "fibre": str(item.pk if item else layer.slot_id), **layer.rule}
    if layer.role == "core" and item and item.form == "filling" and not {"firmness", "density_g_cm3"} & set(row):
        row["density_g_cm3"] = FILLING_DENSITY
    if layer.role in ("cover", "detail"):
        breed = BREEDS[item.breed] if item and item.breed else BREEDS["merino"]
        row |= {
            "micron_um": breed.micron_um,
            "srgb": palette.colour(layer.slot_id),
            "over": palette.colour(layer.over_id),
        }
    return row


def plan_figure(version: Version, parts: Sequence[Part], palette: Palette) -> FigurePlan:
    """What the figure takes, part by part. `parts` come with their layers prefetched."""
    try:
        found = core.estimate(request_of(version, parts, palette))
    except BadInput as fault:
        return FigurePlan([PartPlan(part, 0.0, []) for part in parts], core.Range(0, 0, 0), fault)
    plans = []
    for part, grams in zip(parts, found.parts, strict=True):
        covered = any(layer.role in ("cover", "coat") for layer in part.layers.all())
        layers = [
            LayerPlan(layer, palette.items.get(layer.slot_id), each, not (layer.role in UNSEEN and covered))
            for layer, each in zip(part.layers.all(), grams.layers, strict=True)
        ]
        plans.append(PartPlan(part, grams.volume_mm3, layers))
    return FigurePlan(plans, found.all)


def sums(plan: FigurePlan, count: int = 1) -> list[Sum]:
    """Grams by item, seen and hidden apart, for `count` figures, largest first."""
    groups: dict[tuple, list[LayerPlan]] = {}
    for layer in plan.layers():
        groups.setdefault((layer.item and layer.item.pk or layer.layer.slot_id, layer.seen), []).append(layer)
    found = []
    for group in groups.values():
        grams = core.total([each.grams for each in group])
        times = core.Range(grams.p10 * count, grams.p50 * count, grams.p90 * count)
        found.append(Sum(group[0].item, group[0].layer.slot.name, group[0].seen, times))
    return sorted(found, key=lambda each: -each.grams.p50)
