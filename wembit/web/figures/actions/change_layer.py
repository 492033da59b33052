"""Change what a layer takes, its colour and what it lies over."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.editing.layers import keep, opened, shared, slot_called
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


@transaction.atomic
def change_layer(
    member: Member, figure_id: UUID, key: str, position: int, *, slot: str, rule: dict, over: str = ""
) -> Part:
    """Keep the slot, the rule and the ground of a part's layer; other cores of the part give way to its share.

    Raises `Refusal` beside the field that the core refuses, `Http404`.
    """
    part, layers = opened(member, figure_id, key, position)
    layer = layers[position]
    layer.slot, layer.rule = slot_called(part.version, slot), rule
    layer.over = slot_called(part.version, over) if over else None
    shared(layers, layer)
    return keep(part, layers)
