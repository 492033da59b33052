"""Make a tracing a part, or give a part the traced shape."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.core.shape.sizes import sizes
from wembit.web.figures.editing.following import follow
from wembit.web.figures.models import Part
from wembit.web.figures.queries import figure_of, newest_version, part_of
from wembit.web.figures.to_core.tracings import drawn_of, tracing_of
from wembit.web.studio.models import MAKER, Member

from .add_part import add_part
from .thaw import thawed


@transaction.atomic
def keep_tracing(
    member: Member, figure_id: UUID, tracing_id: UUID, *, kind: str = "", name: str = "", key: str = ""
) -> Part:
    """A new part of that kind, or the part called `key` in the traced shape. Raises `Refusal` for an outline that cannot
    be, `Http404`."""
    member.must_be(MAKER)
    tracing = tracing_of(member.studio, figure_id, tracing_id)
    drawn = drawn_of(tracing)
    if not key:
        return add_part(member, figure_id, kind, sizes(drawn.shape)["length_mm"], name=name, drawn=drawn)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    part = part_of(version, key)
    part.shape, part.firmness = drawn.shape, drawn.firmness
    part.seat = {**part.seat, "bends": drawn.bends or []}
    part.save(update_fields=["shape", "firmness", "seat"])
    follow(version)
    return part
