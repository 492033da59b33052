"""The other pieces of a part: what was done to them is offered for the one in hand, and what is made waits on the table."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.web.figures.to_core.estimating import BARE

from .models import MADE, WAITING
from .piece_chart import PiecePicture, piece_picture
from .queries import pulls_by_layer

if TYPE_CHECKING:
    from wembit.web.figures.models import Part

    from .queries import LayerLine, MakingLine, PieceLine

MOST_SAID = 3  # of the others


@dataclass(frozen=True)
class Done:
    """Another piece of the part, and what was pulled for the same layer of it, one after the other."""

    line: PieceLine
    pulls: list[Decimal]


def beside(line: MakingLine, piece: PieceLine, layer: LayerLine) -> list[Done]:
    """The other pieces of the part for which something was pulled or that were measured; a few. One query where there are
    others.
    """
    others = [
        (other, same)
        for other in line.pieces
        if other.piece.part_key == piece.piece.part_key and other.piece.pk != piece.piece.pk
        for same in other.layers
        if same.layer.position == layer.layer.position and (same.taken > 0 or other.piece.long_mm)
    ]
    if not others:
        return []
    pulls = pulls_by_layer([same.layer.pk for _, same in others])
    return [Done(other, pulls.get(same.layer.pk, [])) for other, same in others[:MOST_SAID]]


def later_of(line: MakingLine, layer: LayerLine) -> list[tuple[UUID, str]]:
    """The layers of the same wool that are still to come, with their words, in the order of work."""
    return [
        (other.layer.pk, f"{piece.piece.name}, {other.layer.slot_name}")
        for piece, other in line.sequence
        if other.layer.item_id == layer.layer.item_id and not other.done and other.layer.pk != layer.layer.pk
    ]


@dataclass(frozen=True)
class Waiting:
    """A piece that is made and not fitted yet, drawn."""

    name: str
    layer: UUID
    picture: PiecePicture
    fill: str


def on_the_table(line: MakingLine, parts: Sequence[Part], seen: Mapping[UUID, str]) -> list[Waiting]:
    """What is made and waits to be fitted; nothing made is forgotten."""
    by_key = {part.key: part for part in parts}
    found = []
    for piece in line.pieces:
        if piece.piece.state not in (MADE, WAITING) or not piece.layers:
            continue
        picture = piece_picture(by_key[piece.piece.part_key], 0.0, "")
        if picture is not None:
            covers = [each.layer for each in piece.layers if each.layer.role in ("cover", "coat")]
            outer = covers[0] if covers else piece.layers[0].layer
            found.append(Waiting(piece.piece.name, outer.pk, picture, seen.get(outer.item_id, BARE)))
    return found
