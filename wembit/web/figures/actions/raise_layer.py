"""Lay a layer after the one that lies on it."""

from __future__ import annotations

from uuid import UUID

from wembit.web.figures.editing.door import editing
from wembit.web.figures.editing.layers import keep_layers
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


def raise_layer(member: Member, figure_id: UUID, key: str, position: int) -> Part:
    """Swap a layer with the one that is laid after it; the last one stays. Raises `Http404`."""
    with editing(member, figure_id, f"layers of the {key}, swapped") as edit:
        part, layers = edit.part(key), edit.layers(key, position)
        layers.insert(position + 1, layers.pop(position))
        keep_layers(edit, part, layers)
    return edit.part(key)
