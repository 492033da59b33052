"""Take a layer off a part."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.editing.layers import keep, opened, shared
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


@transaction.atomic
def remove_layer(member: Member, figure_id: UUID, key: str, position: int) -> Part:
    """The part without that layer; what is left of its cores fills it. Raises `Refusal`, `Http404`."""
    part, layers = opened(member, figure_id, key, position)
    del layers[position]
    shared(layers)
    return keep(part, layers)
