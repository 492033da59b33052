"""Give parts their grams: each grows or shrinks until a piece takes them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from uuid import UUID

from wembit.core.grams.relations import WOOL, Relation
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Version
from wembit.web.studio.models import Member


def give_weights(member: Member, figure_id: UUID, grams: Mapping[str, float]) -> Version:
    """Each part named by key grows or shrinks until a piece takes its grams. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, "parts, by shares") as edit:
        for part in edit.parts:
            if part.key in grams:
                fixed = asdict(Relation(WOOL, None, WOOL, grams[part.key]))
                part.relations = [relation for relation in part.relations if relation["size"] != WOOL] + [fixed]
    return edit.version
