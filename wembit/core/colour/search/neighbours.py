"""The lots near any place of a space, for very many places at once."""

from __future__ import annotations

from itertools import product

import numpy as np

TABLE, PRIMES = (
    1 << 16,
    np.array([53_685, 43_981, 36_025], dtype=np.int32),
)  # odd, near to 2^16 over powers of 1.22 (R3)
_AROUND = np.array(list(product((-1, 0, 1), repeat=3)), dtype=np.int32) @ PRIMES


class Neighbours:
    """Lots (k,) at their places in `columns` (3, n), to be found from no further away than `reach`.

    A hash of the cells of a lattice that is as wide; each lot stands in its own cell and in those beside it.
    """

    def __init__(self, columns: np.ndarray, lots: np.ndarray, reach: float) -> None:
        self.dense = np.float32(1 / max(reach, 0.01))
        keys = (np.add.outer(_AROUND, self._cells(columns[:, lots])) & (TABLE - 1)).ravel()
        order = np.argsort(keys.astype(np.uint16), kind="stable")
        self.lots = np.tile(lots, len(_AROUND))[order]
        self.counts = np.bincount(keys, minlength=TABLE).astype(np.int32)
        self.starts = np.cumsum(self.counts, dtype=np.int32) - self.counts

    def _cells(self, places: np.ndarray) -> np.ndarray:
        keys = np.zeros(places.shape[1], dtype=np.int32)
        for along, prime in zip(places, PRIMES, strict=True):
            keys += np.floor(along * self.dense).astype(np.int32) * prime
        return keys

    def beside(self, places: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Which of the places (3, m) have lots near, where those begin in `lots`, and how many they are; some further away
        are among them.
        """
        keys = self._cells(places) & (TABLE - 1)
        some = np.flatnonzero(self.counts.take(keys))
        keys = keys[some]
        return some, self.starts[keys], self.counts[keys]

    def listed(self, starts: np.ndarray, counts: np.ndarray) -> np.ndarray:
        """The lots of those stretches, one after another."""
        return self.lots[np.arange(counts.sum()) + np.repeat(starts - np.cumsum(counts) + counts, counts)]
