"""Make a part, or the shape of one, of what was drawn."""

from __future__ import annotations

from uuid import UUID

from wembit.core.shape.sizes import sizes
from wembit.web.figures.editing.door import editing
from wembit.web.figures.editing.following import let_go_of_lost_sizes
from wembit.web.figures.models import Part
from wembit.web.figures.to_core.tracings import drawn_of, tracing_of
from wembit.web.studio.models import MAKER, Member

from .add_part import add_part


def keep_tracing(
    member: Member, figure_id: UUID, tracing_id: UUID, *, kind: str = "", name: str = "", key: str = ""
) -> Part:
    """A new part of that kind, or the part called `key` in the traced shape. Raises `Refusal` for an outline that cannot
    be, `Http404`.
    """
    member.must_be(MAKER)
    drawn = drawn_of(tracing_of(member.studio, figure_id, tracing_id))
    if not key:
        return add_part(member, figure_id, kind, sizes(drawn.shape)["length_mm"], name=name, drawn=drawn)
    with editing(member, figure_id, "a part, drawn") as edit:
        part = edit.part(key)
        part.shape, part.firmness = drawn.shape, drawn.firmness
        part.seat = {**part.seat, "bends": drawn.bends or []}
        let_go_of_lost_sizes(edit.parts)
    return part
