"""Begin another colourway of a figure."""

from __future__ import annotations

from uuid import UUID

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.figures.models import Choice, Colourway
from wembit.web.figures.queries import colourway_of, figure_of, newest_version
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed

MOST = 24


@transaction.atomic
def add_colourway(member: Member, figure_id: UUID, name: str, *, like: str = "") -> Colourway:
    """A colourway with the fibres of another (the first, where none is named). Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    name = " ".join(name.split())[:40]
    if not name:
        raise Refusal("Give the colourway a name, like winter white.", "way_name")
    if version.colourways.count() >= MOST:
        raise Refusal(f"At most {MOST} colourways.", "way_name")
    model = get_object_or_404(version.colourways, name=like) if like else colourway_of(version)
    try:
        with transaction.atomic():
            made = Colourway.objects.create(
                studio=member.studio, version=version, name=name, position=version.colourways.count()
            )
    except IntegrityError:
        raise Refusal(f"There is a colourway {name} already.", "way_name") from None
    Choice.objects.bulk_create(
        Choice(studio=member.studio, colourway=made, slot_id=each.slot_id, item_id=each.item_id)
        for each in model.choices.all()
    )
    return made
