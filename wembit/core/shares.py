"""Dividing an amount so that the shares add up to the whole."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import ROUND_DOWN, Decimal

STEP = Decimal("0.001")


def divide(amount: Decimal, weights: Sequence[Decimal]) -> list[Decimal]:
    """`amount` in proportion to `weights`, each to 0.001, by largest remainder (Hamilton's method).

    Raises ValueError when a weight is below 0 or none is above.
    """
    whole = sum(weights)
    if whole <= 0 or min(weights) < 0:
        raise ValueError("shares must not be below 0, and one must be above")
    exact = [amount * weight / whole for weight in weights]
    found = [each.quantize(STEP, ROUND_DOWN) for each in exact]
    missing = int((amount - sum(found)) / STEP)
    for index in sorted(range(len(exact)), key=lambda i: (found[i] - exact[i], i))[:missing]:
        found[index] += STEP
    return found
