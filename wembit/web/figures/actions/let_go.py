"""Let a part stop following another; it keeps the size it has."""

from __future__ import annotations

from uuid import UUID

from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


def let_go(member: Member, figure_id: UUID, key: str, size: str) -> Part:
    """The part without its relation for that size. Raises `Http404`."""
    with editing(member, figure_id, f"{key}, let go") as edit:
        part = edit.part(key)
        part.relations = [relation for relation in part.relations if relation["size"] != size]
    return part
