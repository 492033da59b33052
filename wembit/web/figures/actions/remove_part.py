"""Take a part off a figure."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.figures.models import Part, Version
from wembit.web.figures.queries import figure_of, newest_version, part_of
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def remove_part(member: Member, figure_id: UUID, key: str) -> Version:
    """Remove a part on which nothing sits. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    part = part_of(version, key)
    sitting = [each.name for each in Part.objects.filter(version=version, seat__on=key)]
    if sitting:
        raise Refusal(f"{', '.join(sitting)} sits on it. Take that off first.", "part")
    for other in Part.objects.filter(version=version).exclude(pk=part.pk):
        left = [relation for relation in other.relations if relation["of"] != key]
        if left != other.relations:  # what followed it keeps its size
            other.relations = left
            other.save(update_fields=["relations"])
    part.delete()
    return version
