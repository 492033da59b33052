"""Say what wire is in a part, or that there is none."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.core.errors import BadInput
from wembit.core.grams.estimate import estimate
from wembit.web.errors import Refusal
from wembit.web.figures.editing.following import follow
from wembit.web.figures.models import Part
from wembit.web.figures.queries import figure_of, newest_version, part_of, parts_of
from wembit.web.figures.to_core.estimating import Palette, request_of
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def set_wire(member: Member, figure_id: UUID, key: str, armature: dict) -> Part:
    """Keep a part's armature; an empty one takes the wire out of a part that is not wound on it.

    Raises `Refusal` for a wire that fills its part, `Http404`.
    """
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    part = part_of(version, key)
    if part.shape["kind"] == "none":
        raise Refusal("It has no shape of its own: no wire goes into it.", "wire")
    part.armature = armature
    if part.shape["kind"] == "wrap" and "gauge_mm" in armature:
        part.shape = {**part.shape, "wire_mm": armature["gauge_mm"]}
    part.save(update_fields=["armature", "shape"])
    try:
        estimate(request_of(version, parts_of(version), Palette({}, {})))
    except BadInput as fault:
        raise Refusal(f"{fault.what[0].upper()}{fault.what[1:]}.", "gauge_mm") from None
    follow(version)
    return part_of(version, key)
