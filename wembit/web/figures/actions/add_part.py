"""Add a part to a figure."""

from __future__ import annotations

from dataclasses import replace
from uuid import UUID

from django.utils.text import slugify

from wembit.core.contract.requests import SHAPE
from wembit.core.craft.part_kinds import EYE, KINDS, Kind, root_seat
from wembit.core.pose.placing import PlacedPart, Seat, angles_from_standing
from wembit.core.shape.solids import solid
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.editing.layers import slot_called
from wembit.web.figures.editing.touching import Touch, place_of
from wembit.web.figures.models import Layer, Part, Slot, Version
from wembit.web.figures.queries import numbered
from wembit.web.figures.to_core.seating import placed_part
from wembit.web.figures.to_core.tracings import Drawn
from wembit.web.studio.models import Member

MOST_LETTERS = 36  # of a name before its number


def add_part(
    member: Member,
    figure_id: UUID,
    kind: str,
    length_mm: float,
    *,
    name: str = "",
    drawn: Drawn | None = None,
    touch: Touch | None = None,
) -> Part:
    """A part of that kind and length, with the thickness, firmness and seat that its kind brings, or as it was drawn; where
    the drawing was touched, if it was.

    The first part of a figure stands on the ground. Raises `Refusal`, `Http404`.
    """
    with editing(member, figure_id, f"{name or kind}, added") as edit:
        if kind not in KINDS and kind != EYE:
            raise Refusal("Choose what the part is.", "kind")
        if not 0.1 <= length_mm <= 10_000:
            raise Refusal("Write a length between 0.1 mm and 10 m.", "length")
        if kind == EYE and not edit.parts:
            raise Refusal("Eyes need a head or a body to sit on. Begin with the body.", "kind")
        name = numbered(" ".join(name.split()) or kind, [other.name for other in edit.parts], MOST_LETTERS)
        part = Part(
            studio=edit.studio,
            version=edit.version,
            key=free_key(name, {other.key for other in edit.parts}),
            name=name,
            kind=kind,
            position=max((other.position for other in edit.parts), default=-1) + 1,
        )
        _shape(part, edit.parts, length_mm, drawn)
        if touch and edit.parts:
            part.seat |= place_of(part.count, edit.parts, touch)
        part.save()
        if kind != EYE:
            _layers(part, edit.version, KINDS[kind].covered)
        edit.reload()
    return edit.part(part.key)


def _shape(part: Part, others: list[Part], length_mm: float, drawn: Drawn | None) -> None:
    """Shape, firmness, count and seat, as the kind brings them or as they were drawn."""
    if part.kind == EYE:
        part.count, part.shape = 2, {"kind": "none"}
        part.seat = seat_on(
            others, ("head", "body"), {"t": 0.64, "angle": 62, "bead_mm": length_mm, "sink": length_mm / 4}
        )
        return
    template = KINDS[part.kind]
    part.count = template.count
    part.shape = drawn.shape if drawn else template.shape(length_mm)
    part.firmness = drawn.firmness if drawn else template.firmness
    if drawn and drawn.pitch is not None:
        template = replace(template, seat={**template.seat, "pitch": drawn.pitch, "yaw": 0})
    part.seat = _seat(template, length_mm, others, part) if others else root_seat(part.shape, part.kind)
    if drawn and drawn.bends:
        part.seat["bends"] = drawn.bends


def free_key(name: str, taken: set[str]) -> str:
    """A key from a name that no other part has."""
    base = slugify(name)[:34] or "part"
    return next(key for key in (base, *(f"{base}-{n}" for n in range(2, 1000))) if key not in taken)


def host_among(parts: list[Part], kinds: tuple[str, ...]) -> Part:
    """The part to sit on: the first of the wanted kinds that the figure has, else its first part."""
    solid_parts = [part for part in parts if part.shape["kind"] != "none"] or parts
    for kind in kinds:
        found = [part for part in solid_parts if part.kind == kind]
        if found:
            return found[-1] if kind == "tower" else found[0]
    return solid_parts[0]


def seat_on(parts: list[Part], kinds: tuple[str, ...], seat: dict) -> dict:
    """A seat on the first part of the wanted kinds."""
    return {"on": host_among(parts, kinds).key, "pitch": 0, "yaw": 0, **seat}


def _seat(kind: Kind, length: float, parts: list[Part], part: Part) -> dict:
    """The kind's seat, its angles turned from the standing pose to the part it sits on."""
    standing = {**kind.seat}
    sink = standing.pop("sink_share", 0) * length
    seat = seat_on(parts, kind.on, {**standing, "sink": round(sink, 1)})
    new = PlacedPart(part.key, part.count, solid(SHAPE(part.shape, "shape")), Seat.of(seat))
    return {**seat, **angles_from_standing(new, [placed_part(other) for other in parts])}


def _layers(part: Part, version: Version, covered: bool) -> None:
    """A core, and a cover over it where the kind has one; else the main colour right through."""
    slots = {slot.name: slot for slot in Slot.objects.filter(version=version)}
    inside = slots.get("core") or next(iter(slots.values()), None) or slot_called(version, "main")
    main = slots.get("main") or next((slot for name, slot in slots.items() if name != "core"), inside)
    rows: list[tuple[Slot, str, Slot | None]] = [(inside if covered else main, "core", None)]
    rows += [(main, "cover", inside)] if covered else []
    for position, (slot, role, over) in enumerate(rows):
        Layer.objects.create(
            studio=part.studio, part=part, slot=slot, role=role, over=over, rule={"share": 1.0}, position=position
        )
