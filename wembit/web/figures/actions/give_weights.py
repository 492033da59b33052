"""Give parts the grams that a divided piece of wool has for them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from uuid import UUID

from django.db import transaction

from wembit.core.grams.relations import WOOL, Relation
from wembit.web.figures.editing.following import follow
from wembit.web.figures.models import Version
from wembit.web.figures.queries import figure_of, newest_version, parts_of
from wembit.web.studio.models import MAKER, Member

from .thaw import thawed


@transaction.atomic
def give_weights(member: Member, figure_id: UUID, grams: Mapping[str, float]) -> Version:
    """Each part named by key grows or shrinks until a piece takes its grams. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    version = thawed(newest_version(figure_of(member.studio, figure_id)))
    for part in parts_of(version):
        if part.key in grams:
            fixed = asdict(Relation(WOOL, None, WOOL, grams[part.key]))
            part.relations = [each for each in part.relations if each["size"] != WOOL] + [fixed]
            part.save(update_fields=["relations"])
    follow(version)
    return version
