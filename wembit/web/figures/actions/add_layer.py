"""Give a part one more layer."""

from __future__ import annotations

from uuid import UUID

from wembit.core.contract.requests import ROLES
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.editing.layers import fill_up, keep_layers, slot_called
from wembit.web.figures.models import Layer
from wembit.web.limits import LAYERS
from wembit.web.studio.models import Member

# what a new layer begins with; sizes are common practice and are changed at once
BEGUN: dict[str, dict[str, object]] = {
    "core": {"share": 0.4},
    "padding": {"thickness_mm": 3, "firmness": "airy", "share": 0.3},
    "cover": {"share": 1.0},
    "coat": {"row_spacing_mm": 6, "grams_per_cm": 0.035, "pulled_mm": 44, "finished_mm": 13, "share": 0.65},
    "detail": {"spots": 3, "across_mm": 4},
    "weighed": {"grams": 0.1},
}


def add_layer(member: Member, figure_id: UUID, key: str, role: str, slot: str) -> int:
    """A new layer on top of the part's others; its position is returned. Raises `Refusal`, `Http404`."""
    with editing(member, figure_id, f"a layer more on the {key}") as edit:
        part, layers = edit.part(key), edit.layers(key)
        if role not in ROLES:
            raise Refusal("Choose what the layer does.", "role")
        if part.shape["kind"] == "none" and role not in ("detail", "weighed"):
            raise Refusal("It has no shape of its own: it takes spots, lines and weighed amounts.", "role")
        if len(layers) >= LAYERS:
            raise Refusal(f"A part holds at most {LAYERS} layers.", "role")
        named = slot_called(edit.version, slot)
        layer = Layer(studio=edit.studio, part=part, slot=named, role=role, rule={**BEGUN[role]})
        layers.append(layer)
        fill_up(layers, layer)
        keep_layers(edit, part, layers)
    return len(layers) - 1
