"""A making as it stands: in wool what its wool was taken for, in ink the piece in hand, dotted what is to come."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.web.figures.drawing.layout import Picture, Shape, pictures
from wembit.web.figures.to_core.estimating import BARE, Palette

if TYPE_CHECKING:
    from wembit.web.figures.models import Colourway, Part

    from .queries import LayerLine, MakingLine, PieceLine

WOOL, HERE, TO_COME = "wool", "here", "todo"


@dataclass(frozen=True)
class Standing:
    """A shape of the drawing: how far its piece is, the wool that is seen of it (empty where none is taken), whether all that
    lies on it is there, and the layer that it leads to (None for what takes no wool).
    """

    shape: Shape
    state: str
    fill: str
    dressed: bool
    layer: UUID | None


def own_palette(line: MakingLine, palette: Palette, seen: Mapping[UUID, str]) -> Palette:
    """The colourway as this making has it, stand-ins in place of what they stand in for; `seen`: the colour of each item."""
    layers = [layer.layer for piece in line.pieces for layer in piece.layers]
    instead = {layer.instead_of_id: layer.item for layer in layers if layer.seen and layer.instead_of_id}
    if not instead:
        return palette
    items = {slot: instead.get(item.pk, item) for slot, item in palette.items.items()}
    changed = {slot: seen.get(item.pk, BARE) for slot, item in items.items() if item != palette.items[slot]}
    return Palette(items, {**palette.colours, **changed})


def side_of(way: Colourway, parts: Sequence[Part], palette: Palette) -> Picture:
    """The figure from the side, in the colours of a palette."""
    return pictures(way.version, parts, palette)["side"]


def standing(line: MakingLine, side: Picture, seen: Mapping[UUID, str], here: UUID | None = None) -> list[Standing]:
    """Every shape of the side view as far as its piece is; `here`: the piece in hand."""
    pieces: dict[str, list[PieceLine]] = {}
    for piece in line.pieces:
        pieces.setdefault(piece.piece.part_key, []).append(piece)
    return [_standing(line, shape, pieces.get(shape.key, []), seen, here) for shape in side.shapes]


def _standing(
    line: MakingLine, shape: Shape, of_part: Sequence[PieceLine], seen: Mapping[UUID, str], here: UUID | None
) -> Standing:
    if not of_part:  # an eye, a bead: there when all that is no wool is taken
        there = not line.things_left
        return Standing(shape, WOOL if there else TO_COME, shape.fill if there else "", there, None)
    piece = of_part[min(shape.nth, len(of_part) - 1)]
    layers = piece.layers
    done = [layer for layer in layers if layer.done]
    whole = len(done) == len(layers)
    fill = shape.fill if whole else seen.get(done[-1].layer.item_id, BARE) if done else ""
    state = HERE if piece.piece.pk == here else WOOL if done else TO_COME
    leads = next((layer for layer in layers if not layer.done), layers[0])
    return Standing(shape, state, fill, whole, leads.layer.pk)


def waiting(side: Picture) -> list[Standing]:
    """A figure of which nothing is begun."""
    return [Standing(shape, TO_COME, "", False, None) for shape in side.shapes]


def finished(side: Picture) -> list[Standing]:
    """A figure that is done."""
    return [Standing(shape, WOOL, shape.fill, True, None) for shape in side.shapes]


def weighed(line: MakingLine) -> tuple[int, int]:
    """Of how many pieces all wool is taken, and how many there are."""
    return sum(piece.weighed for piece in line.pieces), len(line.pieces)


def neighbours(
    line: MakingLine, layer: LayerLine
) -> tuple[tuple[PieceLine, LayerLine] | None, tuple[PieceLine, LayerLine] | None]:
    """What comes before a layer and after it in the order of work."""
    every = line.sequence
    at = next(n for n, (_, other) in enumerate(every) if other.layer.pk == layer.layer.pk)
    return (every[at - 1] if at else None), (every[at + 1] if at + 1 < len(every) else None)
