"""Change what a layer takes, its colour and what it lies over."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from wembit.web.figures.editing.door import editing
from wembit.web.figures.editing.layers import fill_up, keep_layers, slot_called
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


def change_layer(
    member: Member,
    figure_id: UUID,
    key: str,
    position: int,
    *,
    slot: str,
    rule: dict,
    over: str = "",
    drawn_at: dt.datetime | None = None,
) -> Part:
    """Keep the slot, the rule and the ground of a part's layer; other cores of the part give way to its share. What another
    has changed since the page was drawn is asked about.

    Raises `Refusal` beside the field that the core refuses, `Http404`.
    """
    with editing(member, figure_id, f"a layer of the {key}", drawn_at=drawn_at) as edit:
        part, layers = edit.part(key), edit.layers(key, position)
        layer = layers[position]
        layer.slot, layer.rule = slot_called(edit.version, slot), rule
        layer.over = slot_called(edit.version, over) if over else None
        fill_up(layers, layer)
        keep_layers(edit, part, layers)
    return edit.part(key)
