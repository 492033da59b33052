"""A marking drawn on a part: a spot, a line or a patch, by where a finger went over the drawing."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from wembit.core.drawing.gestures import Point, rule_of
from wembit.core.drawing.views import grounded
from wembit.core.errors import BadInput
from wembit.core.pose.gaze import Gaze
from wembit.core.pose.placing import Placed
from wembit.core.shape.solids import Nothing
from wembit.web.errors import Refusal, refusal_of
from wembit.web.figures.editing.door import editing
from wembit.web.figures.editing.layers import fill_up, keep_layers, slot_called
from wembit.web.figures.models import Layer
from wembit.web.figures.to_core.seating import placed
from wembit.web.limits import LAYERS
from wembit.web.studio.models import Member


def draw_marking(
    member: Member, figure_id: UUID, key: str, slot: str, gaze: Gaze, way: Sequence[Point], *, both: bool
) -> int:
    """A detail where the finger went, in mm right and up in that view; its position among the layers is returned.

    Raises `Refusal`, `Http404`.
    """
    with editing(member, figure_id, f"a marking on the {key}") as edit:
        part, layers = edit.part(key), edit.layers(key)
        if len(layers) >= LAYERS:
            raise Refusal(f"A part holds at most {LAYERS} layers.", "marking")
        if len(way) == 0:
            raise Refusal("Press, draw a line or a loop on the drawing.", "marking")
        try:
            piece = _seen(grounded(placed(edit.parts)), key, gaze, way)
        except BadInput as fault:
            raise refusal_of(fault) from None
        if piece is None or isinstance(piece.part.shape, Nothing) or piece.seat.bead.mm:
            raise Refusal("It has no skin to draw on.", "part")
        rule = rule_of(piece, gaze, way, both=both)
        layer = Layer(studio=edit.studio, part=part, slot=slot_called(edit.version, slot), role="detail", rule=rule)
        layers.append(layer)
        fill_up(layers, layer)
        keep_layers(edit, part, layers)
    return len(layers) - 1


def _seen(pieces: Sequence[Placed], key: str, gaze: Gaze, way: Sequence[Point]) -> Placed | None:
    """The piece of the part that the finger was on: of a pair the nearer one, by its middle."""
    mine = [piece for piece in pieces if piece.name == key]

    def away(piece: Placed) -> tuple[float, float]:
        middle = piece.axis_at(0.5)[0]
        right, up = gaze.flat(middle)
        return round(((right - way[0][0]) ** 2 + (up - way[0][1]) ** 2) ** 0.5 / 10), -float(middle @ gaze.near)

    return min(mine, key=away, default=None)
