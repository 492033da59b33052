"""The shortest of very many recipes, gathered piece by piece."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np

MANY, SOME = 60_000, 8_000  # lengths of which first some are looked at, and how many
MOST_AT_ONCE = 300_000  # the shortest, where very many are as good as each other
ROOM = 4  # how many times enough must be among them: not all that is short can be


class Shortest:
    """The `most` recipes of least squared length below a bound, of those that `can_be` lets through."""

    def __init__(self, bound: float, most: int, can_be: Callable[[np.ndarray, np.ndarray], np.ndarray]) -> None:
        self.bound, self.most, self.can_be = bound, most, can_be
        self._lengths: list[np.ndarray] = []
        self._indices: list[np.ndarray] = []
        self._parts: list[np.ndarray] = []

    def add(self, lengths: np.ndarray, recipes: Callable[[np.ndarray, np.ndarray], tuple]) -> None:
        """Squared lengths (n, m), and what names the recipes of rows and columns: lots (k, f) and parts (k, f)."""
        for bound in self._bounds(lengths):
            below = np.flatnonzero(lengths < bound)
            if len(below) > MOST_AT_ONCE:
                below = below[np.argpartition(lengths.ravel()[below], MOST_AT_ONCE)[:MOST_AT_ONCE]]
            rows, columns = np.divmod(below, lengths.shape[1])
            indices, parts = recipes(rows, columns)
            good = self.can_be(indices, parts)
            if good.sum() >= self.most:
                break
        lengths, indices, parts = lengths[rows, columns][good], indices[good], parts[good]
        if len(lengths) > self.most:
            first = np.argpartition(lengths, self.most)[: self.most]
            lengths, indices, parts = lengths[first], indices[first], parts[first]
            self.bound = lengths.max()
        self._lengths.append(lengths)
        self._indices.append(indices)
        self._parts.append(parts)

    def _bounds(self, lengths: np.ndarray) -> list[float]:
        """Where to end: a cut-off length, estimated from a sample, that should leave enough; failing that, the bound."""
        if lengths.size < MANY:
            return [self.bound]
        some = lengths.ravel()[:: lengths.size // SOME]
        last = math.ceil(ROOM * self.most * len(some) / lengths.size) + 1
        bound = np.partition(some, last)[last] if last < len(some) else self.bound
        return [bound, self.bound] if bound < self.bound else [self.bound]

    def all(self) -> tuple[np.ndarray, np.ndarray] | None:
        """Lots (k, f) and parts (k, f), in no order; None where there are none."""
        if not self._lengths:
            return None
        lengths, indices, parts = (np.concatenate(each) for each in (self._lengths, self._indices, self._parts))
        if len(lengths) > self.most:
            first = np.argpartition(lengths, self.most)[: self.most]
            return indices[first], parts[first]
        return indices, parts
