"""Put a colourway before the others."""

from __future__ import annotations

from uuid import UUID

from django.shortcuts import get_object_or_404

from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Colourway
from wembit.web.studio.models import Member


def put_first(member: Member, figure_id: UUID, name: str) -> Colourway:
    """The colourway of that name stands before the others. Raises `Http404`."""
    with editing(member, figure_id, "another colourway first") as edit:
        chosen = get_object_or_404(edit.version.colourways, name=name)
        others = [way for way in edit.version.colourways.all() if way.pk != chosen.pk]
        for position, way in enumerate([chosen, *others]):
            way.position = position
            way.save(update_fields=["position"])
    return chosen
