"""What a hand has taken says what it will take next: its bias, and how wide the range has to be to hold eight in ten.

Model: ln(taken / planned) of one maker in one firmness or role is normal around the maker's own bias, with the maker's own
scatter. Among makers the bias is normal (0, `BIAS_SD`); the scatter is even between `SCATTER` and now and then larger.
Given the scatter, the bias is known in closed form, so that the odds of the next taking are a mixture of normal
distributions over a grid of scatters (Gelman et al., Bayesian Data Analysis, 3rd ed. 2013, chapters 2.5 and 3). The answer
is the lognormal with that mixture's tenth and ninetieth percentiles, drawn in by `DRAWN_IN`.

What one hand takes in one day errs together, so that for the bias a record counts `COUNTS`. That and `DRAWN_IN` keep the
range fair to tidy and to wild hands alike: of the tidiest third it holds at most, of the wildest at least, what is wanted.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from wembit.core.craft.materials import USUAL_SIGMA
from wembit.core.grams.estimate import Z90

BIAS_SD = 0.15  # of ln(taken / planned) among makers, common practice
SCATTER = (0.10, 0.30)  # of one maker from piece to piece, common practice
WILDER, WILDEST = 0.05, 1.2  # the share of hands whose scatter is larger, and the largest
COUNTS, DRAWN_IN = 0.5, 0.95
NODES, WILD_NODES = 33, 12
STEPS = 60  # of halving: 1e-16 of the bracket

Vector = NDArray[np.float64]


@dataclass(frozen=True)
class Calibration:
    """What to expect of a hand: it takes `bias` times what the rule says, with the log scatter `sigma`; learnt from `n`."""

    bias: float = 1.0
    sigma: float = USUAL_SIGMA
    n: int = 0


UNKNOWN = Calibration()


def learnt(ratios: Sequence[float]) -> Calibration:
    """The hand that took these multiples (> 0) of what the rule planned, of one maker in one firmness or role."""
    if not ratios:
        return UNKNOWN
    logs = np.log(np.asarray(ratios, dtype=float))
    scatters, prior = _scatters()
    n, mean = len(logs), float(logs.mean())
    around = float(((logs - mean) ** 2).sum())
    of_mean = scatters**2 / (n * COUNTS)
    variance = 1 / (1 / BIAS_SD**2 + 1 / of_mean)
    middle = variance * mean / of_mean
    seen = BIAS_SD**2 + of_mean
    fit = -(n - 1) * np.log(scatters) - around / scatters**2 / 2 - np.log(seen) / 2 - mean**2 / seen / 2
    weights = prior * np.exp(fit - fit.max())
    weights /= weights.sum()
    spread = np.sqrt(variance + scatters**2)
    low, high = (_percentile(share, weights, middle, spread) for share in (0.1, 0.9))
    return Calibration(math.exp((low + high) / 2), DRAWN_IN * (high - low) / (2 * Z90), n)


def _scatters() -> tuple[Vector, Vector]:
    """The grid of scatters and the share of hands at each."""
    usual, wild = np.linspace(*SCATTER, NODES), np.geomspace(SCATTER[1] * 1.1, WILDEST, WILD_NODES)
    even = np.ones(NODES)
    even[[0, -1]] = 0.5
    return np.concatenate([usual, wild]), np.concatenate(
        [even / even.sum() * (1 - WILDER), np.full(WILD_NODES, WILDER / WILD_NODES)]
    )


def _percentile(share: float, weights: Vector, middles: Vector, spreads: Vector) -> float:
    """Below which value that share of the mixture lies, by halving."""
    from scipy.special import ndtr

    reach = 10 * spreads
    low, high = float((middles - reach).min()), float((middles + reach).max())
    for _ in range(STEPS):
        at = (low + high) / 2
        if float(weights @ ndtr((at - middles) / spreads)) < share:
            low = at
        else:
            high = at
    return (low + high) / 2
