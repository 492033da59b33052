"""Say what wire is in a part, or that there is none."""

from __future__ import annotations

from uuid import UUID

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


def set_wire(member: Member, figure_id: UUID, key: str, armature: dict) -> Part:
    """Keep a part's armature; an empty one takes the wire out of a part that is not wound on it.

    Raises `Refusal` for a wire that fills its part, `Http404`.
    """
    with editing(member, figure_id, f"wire of the {key}", field="gauge_mm") as edit:
        part = edit.part(key)
        if part.shape["kind"] == "none":
            raise Refusal("It has no shape of its own: no wire goes into it.", "wire")
        part.armature = armature
        if part.shape["kind"] == "wrap" and "gauge_mm" in armature:
            part.shape = {**part.shape, "wire_mm": armature["gauge_mm"]}
    return part
