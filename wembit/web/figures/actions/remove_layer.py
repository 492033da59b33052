"""Take a layer off a part."""

from __future__ import annotations

from uuid import UUID

from wembit.web.figures.editing.door import editing
from wembit.web.figures.editing.layers import fill_up, keep_layers
from wembit.web.figures.models import Part
from wembit.web.studio.models import Member


def remove_layer(member: Member, figure_id: UUID, key: str, position: int) -> Part:
    """The part without that layer; what is left of its cores fills it. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, f"a layer of the {key}, taken off") as edit:
        part, layers = edit.part(key), edit.layers(key, position)
        del layers[position]
        fill_up(layers)
        keep_layers(edit, part, layers)
    return edit.part(key)
