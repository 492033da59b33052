"""All recipes of a small palette, piece by piece."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache
from itertools import combinations, product

import numpy as np

AT_ONCE = 20_000  # recipes in a piece


@lru_cache(maxsize=64)
def recipes(fibres: int, most: int) -> np.ndarray:
    """All recipes of so many fibres in at most `most` whole parts, in lowest terms, (m, fibres)."""
    found = [
        parts
        for parts in product(range(1, most - fibres + 2), repeat=fibres)
        if sum(parts) <= most and math.gcd(*parts) == 1
    ]
    return np.array(found, dtype=int).reshape(-1, fibres)


@lru_cache(maxsize=64)
def sets(count: int, fibres: int) -> np.ndarray:
    """All sets of so many of `count` lots, (n, fibres)."""
    return np.array(list(combinations(range(count), fibres)), dtype=np.int32).reshape(-1, fibres)


def how_many(count: int, fibres: int, parts: int) -> int:
    """How many recipes of up to so many fibres there are of `count` lots."""
    return sum(math.comb(count, number) * len(recipes(number, parts)) for number in range(1, fibres + 1))


def everything(count: int, fibres: int, parts: int) -> Iterator[tuple[np.ndarray, np.ndarray]]:
    """All recipes of up to so many fibres: lots (k, f) and parts (k, f), those of fewer fibres first."""
    for number in range(1, fibres + 1):
        some, those = sets(count, number), recipes(number, parts)
        step = max(1, AT_ONCE // max(1, len(those)))
        for start in range(0, len(some), step):
            piece = some[start : start + step]
            yield np.repeat(piece, len(those), axis=0), np.tile(those, (len(piece), 1))
