"""Change a part: its sizes, firmness, count, seat."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.core.errors import BadInput
from wembit.core.requests import SHAPE
from wembit.web.figures.following import follow
from wembit.web.figures.models import Part
from wembit.web.figures.queries import figure_of, newest_version, part_among, parts_of
from wembit.web.figures.seating import placed, placed_part
from wembit.web.studio.models import MAKER, Member
from wembit.web.told import Told

from .add_part import turned
from .thaw import thawed

FIELDS = ("name", "count", "shape", "firmness", "visible", "allowance", "loose_end_mm", "seat")


@transaction.atomic
def change_part(member: Member, figure_id: UUID, key: str, changes: dict) -> Part:
    """Keep the changed fields of a part. `standing` in `changes` gives pitch and yaw in the standing pose.

    Raises `Told` beside the field that the core refuses, `Http404`.
    """
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    parts = parts_of(version)
    part = part_among(parts, key)
    for name in FIELDS:
        if name in changes:
            setattr(part, name, changes[name])
    try:
        part.shape = {**SHAPE(part.shape, "shape")}
        if "standing" in changes and part.seat.get("on"):
            pitch, yaw = changes["standing"]
            here, others = placed_part(part), [placed_part(each) for each in parts if each is not part]
            here = here.__class__(here.name, here.count, here.shape, here.seat.__class__.of(
                {**part.seat, "pitch": pitch, "yaw": yaw}
            ))  # fmt: skip
            part.seat = {**part.seat, **turned(here, others)}
        placed(parts)
    except BadInput as fault:
        raise Told(f"{fault.what[0].upper()}{fault.what[1:]}.", fault.where.rpartition(".")[2]) from None
    part.save()
    follow(version, parts)
    return part
