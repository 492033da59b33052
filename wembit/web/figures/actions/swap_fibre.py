"""Put another fibre wherever one stands in a colourway."""

from __future__ import annotations

from uuid import UUID

from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Choice
from wembit.web.stash.models import FIBRE, Item
from wembit.web.studio.models import Member


def swap_fibre(
    member: Member, figure_id: UUID, way: str, old_id: UUID, new_id: UUID, *, slots: list[str] | None = None
) -> list[str]:
    """Every slot of the colourway that has the old fibre (or, of those, the named ones) gets the new one: so every layer,
    step and detail that names it changes in one press. The names of the slots are returned; with them the press is taken
    back. Raises `Refusal` where the old fibre is nowhere, `Http404`.
    """
    with editing(member, figure_id, "a fibre, swapped") as edit:
        colourway = get_object_or_404(edit.version.colourways, name=way)
        new = get_object_or_404(Item.objects.of(member.studio).filter(kind=FIBRE), pk=new_id)
        choices = Choice.objects.filter(colourway=colourway, item_id=old_id).select_related("slot")
        if slots is not None:
            choices = choices.filter(slot__name__in=slots)
        changed = [choice.slot.name for choice in choices]
        if not changed:
            raise Refusal("That fibre is nowhere in this colourway.", "old")
        choices.update(item=new)
    return changed
