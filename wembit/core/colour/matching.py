"""The lots nearest to a colour."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from .difference import differences, in_words


@dataclass(frozen=True)
class Single:
    """A lot, by its place in the palette, and how far its colour is from the one that is looked for."""

    index: int
    de00: float

    @property
    def words(self) -> str:
        return in_words(self.de00)


def nearest(target: Sequence[float], ids: Sequence[str], labs: np.ndarray, limit: int = 10) -> list[Single]:
    """The `limit` lots nearest to a CIELAB colour by CIEDE2000, ties by id."""
    de00 = differences(labs, np.asarray(target))
    order = sorted(range(len(ids)), key=lambda index: (de00[index], ids[index]))
    return [Single(index, float(de00[index])) for index in order[:limit]]
