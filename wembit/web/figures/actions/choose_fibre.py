"""Give a slot of a colourway its fibre."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.figures.editing.following import follow
from wembit.web.figures.models import Choice, Slot
from wembit.web.figures.queries import colourway_of, figure_of, newest_version
from wembit.web.stash.models import FIBRE, Item
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def choose_fibre(member: Member, figure_id: UUID, slot_name: str, item_id: UUID, *, way: str = "") -> Choice:
    """Keep the fibre of a slot in the colourway called `way`, the version's first one without a name. Raises `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    slot = get_object_or_404(Slot, version=version, name=slot_name)
    item = get_object_or_404(Item.objects.of(member.studio).filter(kind=FIBRE), pk=item_id)
    colourway = get_object_or_404(version.colourways, name=way) if way else colourway_of(version)
    choice, _ = Choice.objects.update_or_create(
        colourway=colourway, slot=slot, defaults={"item": item, "studio": member.studio}
    )
    follow(version)
    return choice
