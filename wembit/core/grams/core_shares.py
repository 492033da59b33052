"""Shares of the core layers of a part: they add up to 1."""

from __future__ import annotations

from collections.abc import Sequence


def filled_up(shares: Sequence[float], chosen: int | None = None) -> list[float]:
    """The shares with the sum 1: the one at `chosen` keeps its own, the others divide the rest as they did before.

    One alone fills its part. Others that were all 0 divide the rest equally.
    """
    if len(shares) == 1:
        return [1.0]
    own = 0.0 if chosen is None else min(1.0, max(0.0, shares[chosen]))
    before = sum(share for index, share in enumerate(shares) if index != chosen)
    others = len(shares) - (chosen is not None)
    return [
        own if index == chosen else (1 - own) * (share / before if before else 1 / others)
        for index, share in enumerate(shares)
    ]
