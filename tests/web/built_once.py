"""Figures as the screens or the actions build them, each kind once a process: later ones are copies of its rows."""

from __future__ import annotations

from collections.abc import Callable, Hashable

from wembit.web.figures.actions.make_figure import make_figure
from wembit.web.figures.models import PART_FIELDS, Choice, Figure, Layer, Part, Slot, Version
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.studio.models import Member

_BUILT: dict[Hashable, tuple[list[tuple[str, int]], list[tuple[dict, list[dict]]]]] = {}


def built(owner: Member, name: str, like: Hashable, build: Callable[[], Figure]) -> Figure:
    """The figure that `build` builds, or, when one `like` it was built before, a copy of its parts without any deed."""
    if like not in _BUILT:
        made = build()
        _BUILT[like] = _kept(newest_version(made))
        return made
    made = make_figure(owner, name)
    _lay_out(newest_version(made), *_BUILT[like])
    return made


def in_fibre(made: Figure, slot: str, item_id: object) -> None:
    """The fibre of a slot, chosen."""
    version = newest_version(made)
    chosen = Slot.objects.get(version=version, name=slot)
    Choice.objects.create(studio=made.studio, colourway=colourway_of(version), slot=chosen, item_id=item_id)


def _kept(version: Version) -> tuple[list[tuple[str, int]], list[tuple[dict, list[dict]]]]:
    names = {slot.pk: slot.name for slot in version.slots.all()}
    parts = [
        (
            {field: getattr(part, field) for field in (*PART_FIELDS, "position")},
            [
                {"slot": names[layer.slot_id], "over": names.get(layer.over_id), "role": layer.role,
                 "rule": layer.rule, "position": layer.position}
                for layer in part.layers.all()
            ],
        )
        for part in parts_of(version)
    ]  # fmt: skip
    return [(slot.name, slot.position) for slot in version.slots.all()], parts


def _lay_out(version: Version, slots: list[tuple[str, int]], parts: list[tuple[dict, list[dict]]]) -> None:
    studio, there = version.studio, {slot.name: slot for slot in version.slots.all()}
    for name, position in slots:
        if name not in there:
            there[name] = Slot.objects.create(studio=studio, version=version, name=name, position=position)
    rows = Part.objects.bulk_create(Part(studio=studio, version=version, **fields) for fields, _ in parts)
    Layer.objects.bulk_create(
        Layer(
            studio=studio, part=row, slot=there[layer["slot"]], over=there.get(layer["over"] or ""), role=layer["role"],
            rule=dict(layer["rule"]), position=layer["position"],
        )
        for row, (_, layers) in zip(rows, parts, strict=True)
        for layer in layers
    )  # fmt: skip
