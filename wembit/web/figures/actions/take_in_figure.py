"""Take a figure in from a file."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.db import IntegrityError, transaction

from wembit.core.contract.requests import SHAPE
from wembit.core.errors import BadInput
from wembit.core.grams.estimate import estimate
from wembit.core.grams.relations import order
from wembit.web.errors import Refusal
from wembit.web.figures.editing.following import follow, relations_of
from wembit.web.figures.editing.layers import spots_within
from wembit.web.figures.editing.scaling import keep_scaled
from wembit.web.figures.models import PART_FIELDS, Choice, Colourway, Figure, Layer, Part, Slot, Version
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.estimating import LOOSE_END, Palette, request_of
from wembit.web.figures.to_core.scaling import scaled_parts
from wembit.web.figures.to_core.seating import placed
from wembit.web.stash.models import FIBRE, Item
from wembit.web.studio.models import MAKER, Member

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


@transaction.atomic
def take_in_figure(member: Member, content: dict) -> Figure:
    """The figure of a file that was read as a new one; a wool of the same name, breed and form on the shelf takes its slot.

    Raises `Refusal` naming the place of what is wrong; then nothing is kept.
    """
    member.must_be(MAKER)
    studio = member.studio
    figure = _named(member, content["name"])
    figure.story, figure.origin = content.get("story", ""), content.get("origin", {})
    figure.save()
    version = Version.objects.create(
        studio=studio, figure=figure, school=content.get("school", {}),
        notions=content.get("notions", []), faces=content.get("faces", []), order=content.get("order", {}),
    )  # fmt: skip
    slots: dict[str, Slot] = {}
    for name in content["slots"]:
        _slot(slots, version, name)
    for position, each in enumerate(content["parts"]):
        _part(version, slots, each, position)
    for position, way in enumerate(content.get("colourways") or [{"name": "first", "fibres": {}}]):
        _colourway(version, slots, way, position)
    _checked(version)
    times = content.get("scale", 1.0)  # what earlier files say: their sizes are before it
    if times != 1:
        keep_scaled(version, scaled_parts(parts_of(version), times, studio.habits.get(LOOSE_END, 0.0)), times)
        _checked(version)
    spots_within(version, "file")
    follow(version)
    return figure


def _named(member: Member, name: str) -> Figure:
    """A figure of that name, with a number behind it where the name is taken."""
    name = " ".join(name.split())
    if not name:
        raise Refusal("name: is empty.", "file")
    for number in range(1, 100):
        wanted = name if number == 1 else f"{name[:75]} ({number})"
        try:
            with transaction.atomic():
                return Figure.objects.create(studio=member.studio, name=wanted)
        except IntegrityError:
            continue
    raise Refusal(f"There are too many figures called {name}.", "file")


def _slot(slots: dict[str, Slot], version: Version, name: str) -> Slot:
    key = name.strip().lower()
    if key not in slots:
        slots[key] = Slot.objects.create(studio=version.studio, version=version, name=name.strip(), position=len(slots))
    return slots[key]


def _part(version: Version, slots: dict[str, Slot], each: dict, position: int) -> None:
    where = f"parts[{position}]"
    try:
        SHAPE(each["shape"], f"{where}.shape")
    except BadInput as fault:
        raise Refusal(f"{fault.where}: {fault.what}.", "file") from None
    if Part.objects.filter(version=version, key=each["key"]).exists():
        raise Refusal(f"{where}.key: {each['key']} stands twice.", "file")
    given = {name: each[name] for name in PART_FIELDS if name in each}
    part = Part.objects.create(studio=version.studio, version=version, position=position, **given)
    for order_, layer in enumerate(each["layers"]):
        over = layer.get("over")
        Layer.objects.create(
            studio=version.studio, part=part, slot=_slot(slots, version, layer["slot"]), role=layer["role"],
            over=_slot(slots, version, over) if over else None, rule=layer["rule"], position=order_,
        )  # fmt: skip


def _colourway(version: Version, slots: dict[str, Slot], way: dict, position: int) -> None:
    if version.colourways.filter(name__iexact=way["name"]).exists():
        raise Refusal(f"colourways[{position}].name: {way['name']} stands twice.", "file")
    thought = {
        str(slots[name.strip().lower()].pk): srgb.lower()
        for name, srgb in way.get("thought", {}).items()
        if name.strip().lower() in slots
    }
    made = Colourway.objects.create(
        studio=version.studio, version=version, name=way["name"], position=position, thought=thought
    )
    for name, fibre in way["fibres"].items():
        item = _like(version.studio, fibre)
        if item and name.strip().lower() in slots:
            Choice.objects.create(studio=version.studio, colourway=made, slot=slots[name.strip().lower()], item=item)


def _like(studio: Studio, fibre: dict) -> Item | None:
    """The studio's fibre of that name; of several, the one whose breed and form fit best."""
    named = Item.objects.of(studio).filter(kind=FIBRE, name__iexact=fibre["name"])
    return max(
        named, key=lambda item: (item.form == fibre.get("form")) * 2 + (item.breed == fibre.get("breed")), default=None
    )


def _checked(version: Version) -> None:
    parts = parts_of(version)
    try:
        placed(parts)
        order({part.key: relations_of(part) for part in parts})
        estimate(request_of(version, parts, Palette({}, {})))
    except BadInput as fault:
        raise Refusal(f"{fault.where}: {fault.what}.", "file") from None
    except KeyError as missing:
        raise Refusal(f"a layer's rule lacks {missing.args[0]}.", "file") from None
    except (TypeError, ValueError):
        raise Refusal("a layer's rule holds something of the wrong kind.", "file") from None
