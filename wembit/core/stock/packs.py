"""The cheapest set of packs that holds an amount.

An unbounded covering knapsack by dynamic programming over exact totals in whole units of the packs' common divisor
(Martello & Toth, Knapsack Problems, 1990, ch. 3). For large amounts the pack with the best price per gram is filled in
first: any choice holds a subset of fewer than its own size of other packs whose sum it divides, so the rest is bounded.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import NamedTuple

UNIT = 100  # amounts and money are compared to 0.01
MANY_UNITS = 200_000


@dataclass(frozen=True)
class Chosen:
    """Packs as (grams, count), largest first; what they hold and cost together."""

    packs: tuple[tuple[float, int], ...]
    grams: float
    cost: float


class Priced(NamedTuple):
    """A pack of so many grams and its price; from so many packs on each costs less, by (count, price)."""

    grams: float
    price: float
    breaks: tuple[tuple[int, float], ...] = ()


def price_each(price: Decimal, breaks: Sequence[tuple[int, Decimal]], count: int) -> Decimal:
    """What one of `count` packs costs."""
    return min([price, *(lower for least, lower in breaks if count >= least)])


def cheapest(grams: float, offers: Sequence[tuple[float, float] | Priced]) -> Chosen:
    """The cheapest packs holding at least `grams`; ties: least surplus, then fewest packs.

    offers: (grams, price) or `Priced` of each pack size, grams ≥ 0.01, price ≥ 0, at least one. Notions carry pieces or mm.
    """
    priced = [Priced(*offer) for offer in offers]
    plain = _cheapest(grams, [(each.grams, each.price) for each in priced])
    if not any(each.breaks for each in priced):
        return plain
    return _with_breaks(grams, priced, plain)


def _with_breaks(grams: float, priced: Sequence[Priced], best: Chosen) -> Chosen:
    """The cheapest where packs have price breaks, `best` being so without them. Each choice of a price for each pack is tried:
    with so many of it at the least, at that price for any number, the rest is a choice without breaks; the dearest are left
    out. A number that would reach a better price is found with that price.
    """
    prices = [[(0, each.price), *each.breaks] for each in priced]
    tries = sorted(itertools.product(*prices), key=_least_cost)
    for tried in tries:
        if round(_least_cost(tried) * UNIT) > round(best.cost * UNIT):
            break
        counts: dict[float, int] = {}
        for each, (least, _) in zip(priced, tried, strict=True):
            if least:
                counts[each.grams] = counts.get(each.grams, 0) + least
        there = sum(size * count for size, count in counts.items())
        rest = _cheapest(grams - there, [(each.grams, price) for each, (_, price) in zip(priced, tried, strict=True)])
        for size, count in rest.packs:
            counts[size] = counts.get(size, 0) + count
        rows = tuple((size, counts[size]) for size in sorted(counts, reverse=True))
        found = Chosen(rows, there + rest.grams, _least_cost(tried) + rest.cost)
        best = min(best, found, key=_rank)
    return best


def _least_cost(tried: Sequence[tuple[int, float]]) -> float:
    return sum(least * price for least, price in tried)


def _rank(chosen: Chosen) -> tuple[int, int, int]:
    return round(chosen.cost * UNIT), round(chosen.grams * UNIT), sum(count for _, count in chosen.packs)


def _cheapest(grams: float, offers: Sequence[tuple[float, float]]) -> Chosen:
    """Of packs at one price each."""
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
