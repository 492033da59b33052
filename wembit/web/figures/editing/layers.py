"""The layers of a part in order, and what holds between them: shares of mixed cores add up, slots carry a name."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from django.http import Http404

from wembit.core.errors import BadInput
from wembit.core.grams.estimate import estimate
from wembit.web.errors import Refusal
from wembit.web.figures.actions.thaw import thawed
from wembit.web.figures.models import Layer, Part, Slot, Version
from wembit.web.figures.queries import figure_of, newest_version, part_of
from wembit.web.figures.to_core.estimating import Palette, request_of
from wembit.web.studio.models import MAKER, Member

from .following import follow

MOST_SPOTS = 6_000  # of a figure: each one is drawn
KEPT_SLOTS = ("core", "main")  # a figure's first two slots stay while nothing names them


def slot_called(version: Version, name: str) -> Slot:
    """The version's slot of that name, made where there is none. Raises `Refusal` for a name that is empty."""
    name = " ".join(name.split())[:40]
    if not name:
        raise Refusal("Say where the colour goes: back, belly, eye ring.", "slot")
    found = Slot.objects.filter(version=version, name__iexact=name).first()
    if found:
        return found
    return Slot.objects.create(studio=version.studio, version=version, name=name, position=version.slots.count())


def opened(member: Member, figure_id: UUID, key: str, position: int | None = None) -> tuple[Part, list[Layer]]:
    """A part of the version that may be changed, with its layers in order. Raises `Http404` for a layer it has not."""
    member.must_be(MAKER)
    part = part_of(thawed(newest_version(figure_of(member.studio, figure_id))), key)
    layers = list(part.layers.all())
    if position is not None and position >= len(layers):
        raise Http404
    return part, layers


def shared(layers: Sequence[Layer], chosen: Layer | None = None) -> None:
    """Keep the core shares at 1 in all: `chosen` keeps its own, the others divide the rest as they did before."""
    cores = [layer for layer in layers if layer.role == "core"]
    others = [layer for layer in cores if layer is not chosen]
    if not cores:
        return
    own = chosen.rule.get("share", 1.0) if chosen in cores else 0.0
    if not others:
        chosen.rule["share"] = 1.0
        return
    before = sum(layer.rule.get("share", 1.0) for layer in others)
    for layer in others:
        part = layer.rule.get("share", 1.0) / before if before else 1 / len(others)
        layer.rule["share"] = part * max(0.0, 1 - own)


def spots_within(version: Version, field: str = "spots") -> None:
    """Raises `Refusal` where a figure has more spots than can be drawn."""
    rules = Layer.objects.filter(part__version=version, rule__has_key="spots").values_list("rule", flat=True)
    if sum(rule["spots"] for rule in rules) > MOST_SPOTS:
        raise Refusal(f"A figure has at most {MOST_SPOTS:,} spots in all.", field)


def keep(part: Part, layers: Sequence[Layer]) -> Part:
    """Store the layers in this order and the part as it then is. Raises `Refusal` with the core's words beside the field."""
    kept = [layer.pk for layer in layers if not layer._state.adding]
    part.layers.exclude(pk__in=kept).delete()
    for position, layer in enumerate(layers):
        layer.position = position
        layer.save()
    Slot.objects.filter(version=part.version, layers=None).exclude(name__in=KEPT_SLOTS).delete()
    spots_within(part.version)
    follow(part.version)
    fresh = part_of(part.version, part.key)
    try:
        estimate(request_of(part.version, [fresh], Palette({}, {})))
    except BadInput as fault:
        raise Refusal(f"{fault.what[0].upper()}{fault.what[1:]}.", fault.where.rpartition(".")[2]) from None
    return fresh
