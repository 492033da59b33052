"""How alike the pieces of a pair or a set have to be: by what the part does."""

from __future__ import annotations

BEARING = ("leg", "foot", "neck", "toe")
CLOSE = (*BEARING, "horn")
EASY = frozenset({"ear", "wing", "fin", "arm", "tail", "petal", "leaf", "gill"})
CLOSE_WITHIN, USUAL_WITHIN, EASY_WITHIN = 0.05, 0.10, 0.20  # common practice


def alike_within(kind: str) -> float:
    """By what share of their wool two pieces of a part of this kind may differ."""
    if kind in CLOSE:
        return CLOSE_WITHIN
    return EASY_WITHIN if kind in EASY else USUAL_WITHIN


def differ(one: float, other: float, within: float) -> bool:
    """Whether two amounts, each ≥ 0, are further apart than a share of their mean."""
    return abs(one - other) > within * (one + other) / 2
