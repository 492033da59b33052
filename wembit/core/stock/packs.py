"""The cheapest set of packs that holds an amount.

An unbounded covering knapsack by dynamic programming over exact totals in whole units of the packs' common divisor
(Martello & Toth, Knapsack Problems, 1990, ch. 3). For large amounts the pack with the best price per gram is filled in
first: any choice holds a subset of fewer than its own size of other packs whose sum it divides, so the rest is bounded.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from decimal import Decimal

UNIT = 100  # amounts and money are compared to 0.01
MANY_UNITS = 200_000


@dataclass(frozen=True)
class Chosen:
    """Packs as (grams, count), largest first; what they hold and cost together."""

    packs: tuple[tuple[float, int], ...]
    grams: float
    cost: float


def cheapest(grams: float, offers: list[tuple[float, float]]) -> Chosen:
    """The cheapest packs holding at least `grams`; ties: least surplus, then fewest packs.

    offers: (grams, price) of each pack size, grams ≥ 0.01, price ≥ 0, at least one. Notions carry pieces or mm.
    """
    need = round(grams * UNIT)
    if need <= 0:
        return Chosen((), 0.0, 0.0)
    prices: dict[int, int] = {}
    for size, price in offers:
        units, cents = max(1, round(size * UNIT)), round(price * UNIT)
        prices[units] = min(cents, prices.get(units, cents))
    divisor = math.gcd(*prices)
    sizes = {units // divisor: cents for units, cents in prices.items()}
    need_units = -(-need // divisor)
    best = min(sizes, key=lambda size: (sizes[size] / size, -size))
    filled = 0
    if need_units > MANY_UNITS:
        filled = max(0, (need_units - (best - 1) * max(sizes)) // best - 1)
    counts = _exact(need_units - filled * best, sizes)
    counts[best] = counts.get(best, 0) + filled
    held = sum(size * count for size, count in counts.items()) * divisor
    cost = sum(sizes[size] * count for size, count in counts.items())
    rows = tuple((size * divisor / UNIT, counts[size]) for size in sorted(counts, reverse=True) if counts[size])
    return Chosen(rows, held / UNIT, cost / UNIT)


def lacking(ordered: Decimal, pack: Decimal, came: Decimal) -> int:
    """How many packs of what was ordered did not come; one that came in part counts. All in one unit, `pack` more than 0."""
    return max(0, math.ceil((ordered - came) / pack))


def _exact(need: int, sizes: dict[int, int]) -> dict[int, int]:
    """Counts by size for the best total ≥ need, by the least (cost, total, packs) over all totals below need + largest."""
    import numpy as np

    if need <= 0:
        return {}
    most = need + max(sizes)
    count_bits = most.bit_length() + 1
    infinite = np.iinfo(np.int64).max // 2
    worth = np.full(most, infinite, dtype=np.int64)  # cost and, below it, number of packs in one number
    last = np.zeros(most, dtype=np.int32)
    worth[0] = 0
    step = min(sizes)
    adds = {size: (cents << count_bits) + 1 for size, cents in sizes.items()}
    for start in range(step, most, step):
        stop = min(start + step, most)
        for size, add in adds.items():
            low = max(start, size)
            if low >= stop:
                continue
            offered = worth[low - size : stop - size] + add
            better = offered < worth[low:stop]
            worth[low:stop][better] = offered[better]
            last[low:stop][better] = size
    window = worth[need:]
    reached = window < infinite
    costs = np.where(reached, window >> count_bits, infinite)
    total = need + int(np.argmin(costs))  # the first of equal costs has the least surplus
    counts: dict[int, int] = {}
    while total > 0:
        size = int(last[total])
        counts[size] = counts.get(size, 0) + 1
        total -= size
    return counts
