"""Take a part off a figure."""

from __future__ import annotations

from uuid import UUID

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Version
from wembit.web.studio.models import Member


def remove_part(member: Member, figure_id: UUID, key: str) -> Version:
    """Remove a part on which nothing sits; what followed it keeps its size. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, f"{key}, taken off") as edit:
        part = edit.part(key)
        sitting = [other.name for other in edit.parts if other.seat.get("on") == key]
        if sitting:
            raise Refusal(f"{', '.join(sitting)} sits on it. Take that off first.", "part")
        edit.parts.remove(part)
        part.delete()
        for other in edit.parts:
            other.relations = [relation for relation in other.relations if relation["of"] != key]
    return edit.version
