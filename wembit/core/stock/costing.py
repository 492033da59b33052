"""What things cost, in money with two decimals: amounts times what one costs, time at a rate, a price with a mark-up.

Sums are rounded once, at their end, half a cent up.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

CENT = Decimal("0.01")
ZERO = Decimal(0)


def cents(amount: Decimal) -> Decimal:
    """Rounded to the cent, a half up."""
    return amount.quantize(CENT, rounding=ROUND_HALF_UP)


@dataclass(frozen=True)
class Costed:
    """One thing: so much of it, what one of it costs (None where nobody knows), and what it comes to, unrounded."""

    name: str
    amount: Decimal
    each: Decimal | None

    @property
    def cost(self) -> Decimal:
        return self.amount * self.each if self.each is not None else ZERO


def total(rows: Iterable[Costed]) -> Decimal:
    """What all of it costs, to the cent; what nobody knows the price of costs nothing here."""
    return cents(sum((row.cost for row in rows), ZERO))


def of_time(minutes: float, rate: Decimal) -> Decimal:
    """Minutes at a rate an hour, to the cent."""
    return cents(Decimal(str(round(minutes, 3))) / 60 * rate)


def asked(cost: Decimal, mark_up: Decimal) -> Decimal:
    """A price of sale: the cost and `mark_up` percent of it, to the cent."""
    return cents(cost * (1 + mark_up / 100))


def blended(shares: Sequence[tuple[Decimal | None, int]]) -> Decimal | None:
    """What one of a blend costs: what its parts cost, by whole parts; None where one of them has no price."""
    parts = sum(part for _, part in shares)
    if not parts or any(each is None for each, _ in shares):
        return None
    return sum((each * part for each, part in shares if each is not None), ZERO) / parts
