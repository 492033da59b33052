"""The layers of a part while they are changed: shares of mixed cores add up, slots carry a name."""

from __future__ import annotations

from collections.abc import Sequence

from wembit.core.grams.core_shares import filled_up
from wembit.web.errors import Refusal
from wembit.web.figures.models import Layer, Part, Slot, Version
from wembit.web.limits import SPOTS

from .door import Editing

KEPT_SLOTS = ("core", "main")  # a figure's first two slots stay while nothing names them


def slot_called(version: Version, name: str) -> Slot:
    """The version's slot of that name, made where there is none. Raises `Refusal` for a name that is empty."""
    name = " ".join(name.split())[:40]
    if not name:
        raise Refusal("Say where the colour goes: back, belly, eye ring.", "slot")
    slot = Slot.objects.filter(version=version, name__iexact=name).first()
    if slot:
        return slot
    return Slot.objects.create(studio=version.studio, version=version, name=name, position=version.slots.count())


def fill_up(layers: Sequence[Layer], chosen: Layer | None = None) -> None:
    """Keep the shares of the cores among the layers at 1 in all; `chosen` keeps its own."""
    cores = [layer for layer in layers if layer.role == "core"]
    at = cores.index(chosen) if chosen in cores else None
    shares = filled_up([layer.rule.get("share", 1.0) for layer in cores], at)
    for layer, share in zip(cores, shares, strict=True):
        layer.rule = {**layer.rule, "share": share}


def spots_within(version: Version, field: str = "spots") -> None:
    """Raises `Refusal` where a figure has more spots than can be drawn."""
    rules = Layer.objects.filter(part__version=version, rule__has_key="spots").values_list("rule", flat=True)
    if sum(rule["spots"] for rule in rules) > SPOTS:
        raise Refusal(f"A figure has at most {SPOTS:,} spots in all.", field)


def keep_layers(edit: Editing, part: Part, layers: Sequence[Layer]) -> None:
    """Store the part's layers in this order; slots that nothing names any more go. Raises `Refusal`."""
    kept = [layer.pk for layer in layers if not layer._state.adding]
    part.layers.exclude(pk__in=kept).delete()
    for position, layer in enumerate(layers):
        layer.position = position
        layer.save()
    lain_over = Layer.objects.filter(part__version=edit.version, over__isnull=False).values("over")
    unnamed = Slot.objects.filter(version=edit.version, layers=None).exclude(pk__in=lain_over)
    unnamed.exclude(name__in=KEPT_SLOTS).delete()
    spots_within(edit.version)
    edit.reload()
