"""A figure that is not stored yet: rows as the database would hold them, to be drawn, weighed, and then perhaps kept."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from wembit.web.figures.models import PART_FIELDS, Figure, Layer, Part, Slot, Version

from .estimating import Palette

if TYPE_CHECKING:
    from wembit.web.stash.models import Item


@dataclass(frozen=True)
class Draft:
    """A version with its slots by name and its parts, each with its layers."""

    version: Version
    slots: dict[str, Slot]
    parts: list[Part]

    def layers(self) -> list[Layer]:
        """All layers, part by part."""
        return [layer for part in self.parts for layer in part.layers.all()]

    def palette(self, items: Mapping[str, Item], colours: Mapping[str, str]) -> Palette:
        """A colourway of it: fibres and colours by the slots' names."""
        return Palette(
            {self.slots[name].pk: item for name, item in items.items()},
            {self.slots[name].pk: colour for name, colour in colours.items()},
        )


def draft(figure: Figure, parts: Sequence[Mapping[str, Any]], slots: Sequence[str], **fields: Any) -> Draft:
    """A version of a figure with these parts, as `core.body_plans.plan.stored` and figure files write them, and with other
    fields of a version.
    """
    version = Version(studio=figure.studio, figure=figure, **fields)
    by_name = {
        slot: Slot(studio=figure.studio, version=version, name=slot, position=position)
        for position, slot in enumerate(slots)
    }
    return Draft(version, by_name, [_part(version, by_name, given, position) for position, given in enumerate(parts)])


def _part(version: Version, slots: dict[str, Slot], given: Mapping[str, Any], position: int) -> Part:
    fields = {name: given[name] for name in PART_FIELDS if name in given}
    part = Part(studio=version.studio, version=version, position=position, **fields)
    layers = [
        Layer(
            studio=version.studio, part=part, slot=slots[layer["slot"]], over=slots[layer["over"]] if layer["over"] else None,
            role=layer["role"], rule=layer["rule"], position=number,
        )
        for number, layer in enumerate(given["layers"])
    ]  # fmt: skip
    kept = Layer.objects.none()
    kept._result_cache = layers
    part._prefetched_objects_cache = {"layers": kept}  # type: ignore[attr-defined]
    return part
