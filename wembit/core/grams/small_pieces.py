"""Small things: what is too little for a kitchen scale is counted in pinches and weighed as a group."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from wembit.core.craft.materials import A_PINCH_BELOW_G, SMALLEST_PIECE_G

from .estimate import LayerGrams

PULLED_TIMES = 2  # of what is pulled for tiny details half goes back; common practice


@dataclass(frozen=True)
class Group:
    """`names` of the small things, how many pieces they are, their grams together and the grams to pull for them."""

    names: tuple[str, ...]
    count: int
    grams: float
    pull_g: float


def at_least_a_piece(layer: LayerGrams, count: int) -> LayerGrams:
    """The layer of `count` pieces, none of them under the smallest amount that anyone lays on: then the layer takes that."""
    least = SMALLEST_PIECE_G * count
    return layer if not 0 < layer.middle < least else replace(layer, rule_g=least / layer.bias)


def is_small(grams: float) -> bool:
    """Whether so much of a piece is a pinch."""
    return 0 < grams < A_PINCH_BELOW_G


def group(pieces: Iterable[tuple[str, int, float]]) -> Group | None:
    """The small ones among (name, count, grams a piece) as one group; a piece counts at least 0.02 g. None without any."""
    small = [(name, count, max(grams, SMALLEST_PIECE_G)) for name, count, grams in pieces if is_small(grams)]
    if not small:
        return None
    together = sum(count * grams for _, count, grams in small)
    return Group(
        tuple(name for name, _, _ in small), sum(count for _, count, _ in small), together, together * PULLED_TIMES
    )
