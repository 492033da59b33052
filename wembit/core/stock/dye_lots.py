"""Which figure gets which dye lot, where one colour comes from several: a figure of two lots shows it.

A dye lot is never split within a figure while there is another way; what remains of the lots is carded together.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

CRUMB_G = 0.005  # so much a bag may be short of, which no scale shows


@dataclass(frozen=True)
class Lot:
    """What of a dye lot is there for these figures, in g."""

    name: str
    grams: float


@dataclass(frozen=True)
class Given:
    """The figures, by number, that are made of one dye lot alone."""

    lot: str
    numbers: tuple[int, ...]


def which_gets_which(numbers: Sequence[int], each_g: float, lots: Sequence[Lot]) -> tuple[list[Given], tuple[int, ...]]:
    """Which lot each figure gets, the fullest lot first, and the figures that take of several; those for which all lots
    together are too little are in neither.
    """
    if not numbers or each_g <= 0:
        return [], ()
    rest, found = list(numbers), []
    for lot in sorted(lots, key=lambda lot: (-lot.grams, lot.name)):
        whole = min(len(rest), int((lot.grams + CRUMB_G) / each_g))
        if whole:
            found.append(Given(lot.name, tuple(rest[:whole])))
            rest = rest[whole:]
    left = sum(lot.grams for lot in lots) - each_g * (len(numbers) - len(rest))
    return found, tuple(rest[: max(0, int((left + CRUMB_G) / each_g))])
