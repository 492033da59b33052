"""A piece of wool divided by shares: grams of each share, and of each of its pieces."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

STEP_G = 0.01


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


def rounded(grams: float, shares: Sequence[Fraction]) -> list[float]:
    """The whole in these shares, each to 0.01 g, by largest remainder (Hamilton's method)."""
    steps = round(grams / STEP_G)
    exact = [steps * share for share in shares]
    units = [int(each) for each in exact]
    for index in sorted(range(len(exact)), key=lambda i: (units[i] - exact[i], i))[: steps - sum(units)]:
        units[index] += 1
    return [round(each * STEP_G, 2) for each in units]
