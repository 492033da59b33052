"""Begin another colourway of a figure."""

from __future__ import annotations

from uuid import UUID

from django.db import IntegrityError, transaction

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Choice, Colourway
from wembit.web.limits import COLOURWAYS
from wembit.web.studio.models import Member


def add_colourway(member: Member, figure_id: UUID, name: str, *, like: str = "") -> Colourway:
    """A colourway with the fibres of another (the first, where none is named). Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, f"colourway {name}, begun") as edit:
        name = " ".join(name.split())[:40]
        if not name:
            raise Refusal("Give the colourway a name, like winter white.", "way_name")
        count = edit.version.colourways.count()
        if count >= COLOURWAYS:
            raise Refusal(f"At most {COLOURWAYS} colourways.", "way_name")
        model = edit.way(like)
        try:
            with transaction.atomic():
                made = Colourway.objects.create(
                    studio=edit.studio, version=edit.version, name=name, position=count, thought=model.thought
                )
        except IntegrityError:
            raise Refusal(f"There is a colourway {name} already.", "way_name") from None
        Choice.objects.bulk_create(
            Choice(studio=edit.studio, colourway=made, slot_id=choice.slot_id, item_id=choice.item_id)
            for choice in model.choices.all()
        )
    return made
