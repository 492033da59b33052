"""Let a size, or the wool, of a part follow another part."""

from __future__ import annotations

from dataclasses import asdict
from uuid import UUID

from django.db import transaction

from wembit.core.grams.relations import Relation
from wembit.web.figures.editing.following import follow
from wembit.web.figures.models import Part
from wembit.web.figures.queries import figure_of, newest_version, part_of
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def follow_part(member: Member, figure_id: UUID, key: str, relation: Relation) -> Part:
    """Keep the relation in place of one that says the same size. Raises `Refusal` for a ring or a size that cannot be."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    part = part_of(version, key)
    part.relations = [each for each in part.relations if each["size"] != relation.size] + [asdict(relation)]
    part.save(update_fields=["relations"])
    follow(version)
    return part_of(version, key)
