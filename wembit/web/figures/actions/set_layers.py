"""Say what a part is made of: its layers."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.core.errors import BadInput
from wembit.core.estimate import estimate
from wembit.web.figures.estimating import Palette, request_of
from wembit.web.figures.models import Layer, Part, Slot, Version
from wembit.web.figures.queries import figure_of, newest_version, part_of
from wembit.web.studio.models import MAKER, Member
from wembit.web.told import Told

from .thaw import thawed


@transaction.atomic
def set_layers(member: Member, figure_id: UUID, key: str, rows: list[dict]) -> Part:
    """Replace a part's layers. Each row: role, slot (its name, made where there is none), rule, over (a slot's name).

    Raises `Told` with the core's words for layers that cannot be, `Http404`.
    """
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    part = part_of(version, key)
    part.layers.all().delete()
    for position, row in enumerate(rows):
        Layer.objects.create(
            studio=member.studio,
            part=part,
            slot=slot_called(version, row["slot"]),
            over=slot_called(version, row["over"]) if row.get("over") else None,
            role=row["role"],
            rule=row["rule"],
            position=position,
        )
    part = part_of(version, key)
    try:
        estimate(request_of(version, [part], Palette({}, {})))
    except BadInput as fault:
        raise Told(f"{fault.what[0].upper()}{fault.what[1:]}.", fault.where) from None
    Slot.objects.filter(version=version, layers=None).exclude(name__in=("core", "main")).delete()
    return part


def slot_called(version: Version, name: str) -> Slot:
    name = " ".join(name.split())[:40]
    if not name:
        raise Told("Say where the colour goes: back, belly, eye ring.", "slot")
    found = Slot.objects.filter(version=version, name__iexact=name).first()
    if found:
        return found
    return Slot.objects.create(studio=version.studio, version=version, name=name, position=version.slots.count())
