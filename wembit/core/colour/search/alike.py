"""Lots of one and the same colour: of very many only those are looked at that can come first."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from .everything import recipes


def worth_looking_at(mixing: np.ndarray, share: np.ndarray, ids: Sequence[str], parts: int, kept: int) -> np.ndarray:
    """The places, by id, of the lots that one of the `kept` best recipes can name: of lots with one additive function
    (n, 36), which can give these largest shares (n,), the first by id for each share that there is.
    """
    order = sorted(range(len(ids)), key=ids.__getitem__)
    groups: dict[bytes, list[int]] = {}
    for place in order:
        groups.setdefault(mixing[place].tobytes(), []).append(place)
    if all(len(group) <= kept for group in groups.values()):
        return np.array(order, dtype=int)
    pairs = recipes(2, parts)
    steps = np.unique([1.0, *(pairs / pairs.sum(axis=1, keepdims=True)).ravel().tolist()])
    chosen: set[int] = set()
    for group in groups.values():
        places = np.array(group)
        chosen.update(group[:kept])
        if len(group) > kept:
            for step in steps:
                chosen.update(places[share[places] >= step][:kept].tolist())
    return np.array([place for place in order if place in chosen], dtype=int)
