"""A piece of wool divided by shares: grams of each share, and of each of its pieces."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

STEP_G = 0.01
EASE = 1e-6  # of a step: what a sum of floats may be off


class TooMuch(ValueError):
    """The shares come to more than the whole; `total` is what they come to."""

    def __init__(self, total: Fraction) -> None:
        super().__init__(f"the shares come to {float(total):.3g} of the whole")
        self.total = total


@dataclass(frozen=True)
class Wish:
    """What a share goes to: `count` pieces that take `share` of the whole together, or (None) divide the rest evenly
    with all others that take of it, piece by piece.
    """

    name: str
    count: int
    share: Fraction | None


@dataclass(frozen=True)
class Portion:
    """One of the portions into which wool is divided."""

    name: str
    count: int
    grams: float

    @property
    def each_g(self) -> float:
        return self.grams / self.count


def divide(grams: float, wishes: Sequence[Wish]) -> tuple[list[Portion], float]:
    """The portions in order, and the grams left over. Portions and rest add up to the whole, to 0.01 g.

    Raises `TooMuch` when the shares are more than the whole.
    """
    said = sum((wish.share for wish in wishes if wish.share is not None), Fraction(0))
    if said > 1:
        raise TooMuch(said)
    pieces = sum(wish.count for wish in wishes if wish.share is None)
    shares = [(1 - said) * wish.count / pieces if wish.share is None else wish.share for wish in wishes]
    left = Fraction(0) if pieces else 1 - said
    grams_each = rounded(grams, [*shares, left])
    return [Portion(w.name, w.count, g) for w, g in zip(wishes, grams_each, strict=False)], grams_each[-1]


def rounded(grams: float, shares: Sequence[Fraction], most: Sequence[float] | None = None) -> list[float]:
    """The whole in these shares, each to 0.01 g, by largest remainder (Hamilton's method); none above what is in `most`, even
    where they then come to a hundredth less.
    """
    steps = round(grams / STEP_G)
    room = [
        math.inf if each == math.inf else math.floor(each / STEP_G + EASE) for each in most or [math.inf] * len(shares)
    ]
    exact = [steps * share for share in shares]
    units = [int(min(each, there)) for each, there in zip(exact, room, strict=True)]
    while left := steps - sum(units):
        open_ones = [index for index, there in enumerate(room) if units[index] < there]
        for index in sorted(open_ones, key=lambda i: (units[i] - exact[i], i))[:left]:
            units[index] += 1
        if not open_ones:
            break
    return [round(each * STEP_G, 2) for each in units]
