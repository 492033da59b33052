"""Take a fitting off a figure."""

from __future__ import annotations

from uuid import UUID

from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Version
from wembit.web.studio.models import Member


def drop_fitting(member: Member, figure_id: UUID, fitting_id: str) -> Version:
    """The newest version without that fitting. Raises `Http404`."""
    with editing(member, figure_id, "a fitting, taken off") as edit:
        edit.version.notions = [kept for kept in edit.version.notions if kept["id"] != fitting_id]
        edit.version.save(update_fields=["notions"])
    return edit.version
