"""Copies of a version: for a copied figure, and for a frozen one that is to be changed."""

from __future__ import annotations

from collections.abc import Mapping
from uuid import UUID

from wembit.web.figures.models import PART_FIELDS, Choice, Colourway, Figure, Layer, Part, Slot, Version
from wembit.web.figures.queries import parts_of


def copy_version(version: Version, figure: Figure, number: int) -> Version:
    """The version's parts, layers, slots and colourways as version `number` of a figure."""
    studio = version.studio
    copy = Version.objects.create(
        studio=studio,
        figure=figure,
        number=number,
        school=version.school,
        order=version.order,
        notions=version.notions,
        faces=version.faces,
    )
    slots = {}
    for slot in version.slots.all():
        slots[slot.pk] = Slot.objects.create(studio=studio, version=copy, name=slot.name, position=slot.position)
    for part in parts_of(version):
        kept = {name: getattr(part, name) for name in PART_FIELDS}
        new = Part.objects.create(studio=studio, version=copy, position=part.position, **kept)
        Layer.objects.bulk_create(
            Layer(
                studio=studio, part=new, slot=slots[layer.slot_id], role=layer.role,
                over=slots[layer.over_id] if layer.over_id else None,
                rule=layer.rule, position=layer.position,
            )
            for layer in part.layers.all()
        )  # fmt: skip
    copy_colourways(version, copy, {slot.name: slot for slot in slots.values()})
    return copy


def copy_colourways(version: Version, copy: Version, slots: Mapping[str, Slot]) -> None:
    """The colourways of a version in another one, whose slots are given by name; what it has no slot for is left out."""
    studio, names = copy.studio, {slot.pk: slot.name for slot in version.slots.all()}
    for colourway in version.colourways.all():
        thought = {
            str(slots[names[UUID(slot)]].pk): srgb
            for slot, srgb in colourway.thought.items()
            if names.get(UUID(slot)) in slots
        }
        way = Colourway.objects.create(
            studio=studio, version=copy, name=colourway.name, position=colourway.position, thought=thought
        )
        Choice.objects.bulk_create(
            Choice(studio=studio, colourway=way, slot=slots[names[choice.slot_id]], item_id=choice.item_id)
            for choice in colourway.choices.all()
            if names[choice.slot_id] in slots
        )
