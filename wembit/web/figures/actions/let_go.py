"""Let a part stop following another; it keeps the size it has."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.models import Part
from wembit.web.figures.queries import figure_of, newest_version, part_of
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def let_go(member: Member, figure_id: UUID, key: str, size: str) -> Part:
    """The part without its relation for that size. Raises `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    part = part_of(version, key)
    part.relations = [each for each in part.relations if each["size"] != size]
    part.save(update_fields=["relations"])
    return part
