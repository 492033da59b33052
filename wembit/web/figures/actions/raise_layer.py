"""Lay a layer of a part one step later."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.editing.layers import keep, opened
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


@transaction.atomic
def raise_layer(member: Member, figure_id: UUID, key: str, position: int) -> Part:
    """Swap a layer with the one that is laid after it; the last one stays. Raises `Http404`."""
    part, layers = opened(member, figure_id, key, position)
    layers.insert(position + 1, layers.pop(position))
    return keep(part, layers)
