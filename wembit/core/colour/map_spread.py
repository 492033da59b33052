"""Marks of a map moved apart until none covers more of another than a given share, each as near to its own place as that
goes.
"""

from __future__ import annotations

import numpy as np
from scipy.spatial import cKDTree

OVERLAP = 0.3  # of the way between two middles at which they would only touch
ROUNDS, HOME = 120, 0.04  # how often all are pushed, and how strongly each is drawn to its own place meanwhile
SLACK = 0.1  # so much further they are pushed, that they come to rest


def spread(
    places: np.ndarray, radii: np.ndarray, *, stretch: tuple[float, float] = (1.0, 1.0),
    within: tuple[float, float] | None = None,
) -> np.ndarray:  # fmt: skip
    """Places (n, 2) and radii (n,) in the same units; the new places. `stretch`: how readily they move right and up;
    `within`: no farther than so much from the middle, right and up. Marks at one place part in a fixed order.
    """
    count = len(places)
    home = np.asarray(places, dtype=float)
    if count < 2:
        return home.copy()
    ready = np.array(stretch)
    found = home + _parted(home) * float(radii.min()) / 2
    reach = 2 * float(radii.max()) * (1 - OVERLAP + SLACK)
    for turn in range(ROUNDS):
        pairs = cKDTree(found).query_pairs(reach, output_type="ndarray")
        if not len(pairs):
            break
        one, two = pairs.T
        apart = found[two] - found[one]
        far = np.maximum(np.hypot(*apart.T), 1e-9)
        lack = (radii[one] + radii[two]) * (1 - OVERLAP + SLACK) - far
        close = lack > 0
        if not (lack > SLACK * (radii[one] + radii[two])).any():
            break
        push = (apart / far[:, None] * ready * (np.maximum(lack, 0) / 2)[:, None])[close]
        moved = np.zeros_like(found)
        np.add.at(moved, one[close], -push)
        np.add.at(moved, two[close], push)
        found += moved
        if turn < ROUNDS * 3 // 4:
            found += (home - found) * HOME
        if within is not None:
            found = np.clip(found, -np.array(within), np.array(within))
    return found


def _parted(home: np.ndarray) -> np.ndarray:
    """A way off for each mark but the first of a place, as the seeds of a sunflower lie: no two go the same way."""
    _, place = np.unique(home.round(), axis=0, return_inverse=True)
    order = np.argsort(place, kind="stable")
    first = np.concatenate([[0], np.flatnonzero(np.diff(place[order])) + 1])
    rank = np.empty(len(home))
    rank[order] = np.arange(len(home)) - np.repeat(first, np.diff([*first, len(home)]))
    turns = rank * 2.399963  # the golden angle
    return np.sqrt(rank)[:, None] * np.column_stack([np.cos(turns), np.sin(turns)])
