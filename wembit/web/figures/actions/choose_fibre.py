"""Give a slot of a colourway its fibre."""

from __future__ import annotations

from uuid import UUID

from django.shortcuts import get_object_or_404

from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Choice, Slot
from wembit.web.stash.models import FIBRE, Item
from wembit.web.studio.models import Member


def choose_fibre(member: Member, figure_id: UUID, slot_name: str, item_id: UUID, *, way: str = "") -> Choice:
    """Keep the fibre of a slot in the colourway called `way`, the version's first one without a name. Raises `Http404`."""
    with editing(member, figure_id, "a fibre, chosen") as edit:
        slot = get_object_or_404(Slot, version=edit.version, name=slot_name)
        item = get_object_or_404(Item.objects.of(member.studio).filter(kind=FIBRE), pk=item_id)
        choice, _ = Choice.objects.update_or_create(
            colourway=edit.way(way), slot=slot, defaults={"item": item, "studio": member.studio}
        )
    return choice
