"""Take a colourway away."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.db.models import ProtectedError
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Version
from wembit.web.studio.models import Member


def drop_colourway(member: Member, figure_id: UUID, name: str) -> Version:
    """The newest version without it. Raises `Refusal` for the last one and for one that is planned, `Http404`."""
    with editing(member, figure_id, f"colourway {name}, dropped") as edit:
        way = get_object_or_404(edit.version.colourways, name=name)
        if edit.version.colourways.count() == 1:
            raise Refusal("A figure keeps one colourway at least.", "way")
        try:
            with transaction.atomic():
                way.delete()
        except ProtectedError:
            raise Refusal(f"{name} is planned. Close its projects first.", "way") from None
    return edit.version
