"""How well the middle eight in ten of a forecast of use held what came."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import numpy as np
from scipy import stats

from wembit.core.stock.intermittent import A_TRACE, FEWEST, HIGH, LOW, weekly_use


def holds(used: Sequence[float], came: Sequence[float]) -> bool:
    """Whether the 10–90 % of the coming weeks, as the forecast has them, holds the sum of what came, with nothing in it where
    one time in ten nothing is used or less than a scale shows is expected.
    """
    told = weekly_use(used)
    if not told.weekly_g:
        return sum(came) == 0
    low, high = _coming(used, came).ppf([LOW, HIGH])
    empty = _odds_of_none(used, came) >= LOW or low < A_TRACE
    return (0 if empty else low) <= sum(came) <= high


def share_inside(used: Sequence[float], came: Sequence[float]) -> float:
    """The share of what came that lies within the 10–90 %: 0 or 1, but of nothing, which comes with odds of its own, as much
    of these odds as lies within. So weeks in which mostly nothing comes are counted fairly (C. Czado, T. Gneiting & L. Held,
    Predictive model assessment for count data, Biometrics 65 (2009), the probability integral transform without chance,
    from memory).
    """
    none = _odds_of_none(used, came)
    if sum(came) < A_TRACE:
        return max(0.0, min(none, HIGH) - LOW) / none if none else 0.0
    return float(LOW <= max(none, _coming(used, came).cdf(sum(came))) <= HIGH)


def back_tested(ledgers: Iterable[Sequence[float]], ahead: int) -> list[float]:
    """The share inside of every stretch of so many weeks that followed on at least eight, where a use had been known."""
    return [
        share_inside(used[:at], used[at : at + ahead])
        for used in ledgers
        for at in range(FEWEST, len(used) - ahead + 1)
        if weekly_use(used[:at]).weekly_g
    ]


def _coming(used: Sequence[float], came: Sequence[float]) -> stats.rv_continuous:
    told = weekly_use(used)
    shape = len(came) * (told.weekly_g / told.weekly_sd_g) ** 2
    return stats.gamma(shape, scale=told.weekly_sd_g**2 / told.weekly_g)


def _odds_of_none(used: Sequence[float], came: Sequence[float]) -> float:
    return float(np.mean(np.equal(used, 0)) ** len(came))
