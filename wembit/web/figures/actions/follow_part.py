"""Let a size, or the wool, of a part follow another part."""

from __future__ import annotations

from dataclasses import asdict
from uuid import UUID

from wembit.core.grams.relations import Relation
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


def follow_part(member: Member, figure_id: UUID, key: str, relation: Relation) -> Part:
    """Keep the relation in place of one that says the same size. Raises `Refusal` for a ring or a size that cannot be."""
    with editing(member, figure_id, f"{key} follows another part") as edit:
        part = edit.part(key)
        part.relations = [other for other in part.relations if other["size"] != relation.size] + [asdict(relation)]
    return part
