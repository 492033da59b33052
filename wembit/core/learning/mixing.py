"""What a studio's own blends say of the constant M of the mixing law (Stearns & Noechel 1944; see colour/mixture.py).

M is the smallest sum of squared differences between what is predicted and what came out, drawn towards the book's 0.15 as if
its logarithm were known to `SPREAD` and a told colour to `TOLD` (a Gaussian prior: Gelman et al., Bayesian Data Analysis, 3rd
ed. 2013, chapter 2.5). It is believed only where it predicts blends better that it has not seen: each is left out once.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from wembit.core.colour.basis import WEIGHTS
from wembit.core.colour.conversions import xyz_rows_to_lab
from wembit.core.colour.difference import differences
from wembit.core.colour.mixture import M, f, reflectance

LEAST, MOST, FEWEST = 0.05, 0.40, 5  # of M, and of blends
SPREAD, TOLD = 0.35, 1.5  # of ln M among studios, and of a told colour in ΔE00: assumed
FAR = 6.0  # ΔE00: a colour further off counts no more, since it was told of another wool
STEPS = 209  # of M that are looked at: 1 % each


@dataclass(frozen=True)
class CardedBlend:
    """The curves (k, 36) of the wools of a blend, their masses (k,) in any unit, and the CIELAB colour that came out."""

    curves: np.ndarray
    masses: np.ndarray
    came_out: tuple[float, float, float]

    def off(self, ms: np.ndarray) -> np.ndarray:
        """How far, in ΔE00 (s,), what is predicted with each of those M (s,) lies from what came out."""
        shares = self.masses / self.masses.sum()
        seen = reflectance(shares @ f(self.curves, ms[:, None, None]), ms[:, None])
        return differences(xyz_rows_to_lab(seen @ WEIGHTS.T), np.array(self.came_out))


@dataclass(frozen=True)
class Mixing:
    """The M to predict with, learnt from `n` blends; `book_off` and `own_off`: the mean ΔE00 of blends left out, with the
    book's M and with that of the others.
    """

    m: float = M
    n: int = 0
    book_off: float = 0.0
    own_off: float = 0.0

    @property
    def own(self) -> bool:
        """Whether it is the studio's own."""
        return self.m != M


def learnt_mixing(blends: Sequence[CardedBlend]) -> Mixing:
    """What the blends say of M, within `LEAST` to `MOST`; of fewer than `FEWEST`, and where it is no nearer, the book's."""
    if len(blends) < FEWEST:
        return Mixing(n=len(blends))
    tried = np.geomspace(LEAST, MOST, STEPS)
    off = np.array([each.off(tried) for each in blends])
    costs = (np.minimum(off, FAR) / TOLD) ** 2
    prior = (np.log(tried / M) / SPREAD) ** 2
    whole = costs.sum(axis=0) + prior
    book = np.array([each.off(np.array([M])) for each in blends])
    without = [(whole - cost).argmin() for cost in costs]
    own = np.array([row[best] for row, best in zip(off, without, strict=True)])
    book_off, own_off = float(np.minimum(book, FAR).mean()), float(np.minimum(own, FAR).mean())
    m = round(float(tried[whole.argmin()]), 3) if own_off < book_off else M
    return Mixing(m, len(blends), book_off, own_off)
