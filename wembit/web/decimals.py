"""The border between the core, which reckons in floats, and the ledger, which keeps decimals: numbers pass it here alone."""

from __future__ import annotations

from decimal import Decimal

STEP = Decimal("0.001")  # what the ledger keeps, of any unit
CENT = Decimal("0.01")  # what money and a size in mm are kept to


def decimal(number: float) -> Decimal:
    """The decimal that a float is written as."""
    return Decimal(str(number))


def to_step(number: float | Decimal) -> Decimal:
    """An amount in its unit as the ledger keeps it, to a thousandth; halves to the even neighbour."""
    return Decimal(str(number)).quantize(STEP)


def to_cent(number: float | Decimal) -> Decimal:
    """Money, or a size in mm, to a hundredth; halves to the even neighbour."""
    return Decimal(str(number)).quantize(CENT)
