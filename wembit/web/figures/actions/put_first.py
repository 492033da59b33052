"""Let a colourway be the one in which a figure is drawn."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.figures.editing.following import follow
from wembit.web.figures.models import Colourway
from wembit.web.figures.queries import figure_of, newest_version
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def put_first(member: Member, figure_id: UUID, name: str) -> Colourway:
    """The colourway of that name stands before the others. Raises `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    chosen = get_object_or_404(version.colourways, name=name)
    others = [way for way in version.colourways.all() if way.pk != chosen.pk]
    for position, way in enumerate([chosen, *others]):
        way.position = position
        way.save(update_fields=["position"])
    follow(version)
    return chosen
