"""What is used now and then, by the week: from the weeks that have been.

Three forecasts are held against each other on the second half of the weeks: the probability and the size of a use smoothed
apart (R. H. Teunter, A. A. Syntetos & M. Z. Babai, Intermittent demand: linking forecasting to inventory obsolescence,
European J. of Operational Research 214 (2011) 606–615, recalled from memory), the plain mean, and the same week a year ago.
The one whose sum of the next weeks comes nearest is used and named, and its scatter is widened until the middle eight in ten
of what it would have said held eight in ten of what came (split conformal prediction: V. Vovk, A. Gammerman & G. Shafer,
Algorithmic Learning in a Random World, 2005, from memory): use that drifts is known less well than its weeks scatter.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import accumulate

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammainc

SIZE, ODDS = 0.2, 0.1  # how fast size and probability follow, common practice
AHEAD, YEAR = 6, 52  # weeks that a forecast is held against, and of a year
FEWEST = 8  # weeks from which something is said
REACH = 16  # weeks for which what is not known of the mean is added to the scatter of a week
LOW, HIGH = 0.1, 0.9  # of the band
TIMES_WIDER = (1.0, 1.15, 1.3, 1.5, 1.75, 2.0, 2.5, 3.0, 4.0)  # that are tried, the narrowest first
A_TRACE = 0.005  # g: less is nothing on a scale of a hundredth
Series = Sequence[float]
Weeks = NDArray[np.float64]


@dataclass(frozen=True)
class WeeklyUse:
    """Grams a week to expect, the standard deviation of a week and of what is not known of it, and by which forecast."""

    weekly_g: float = 0.0
    weekly_sd_g: float = 0.0
    by: str = ""

    @property
    def days_each(self) -> int:
        """In how many days one is used of what is used one by one; 0 where none is."""
        return max(1, round(7 / self.weekly_g)) if self.weekly_g else 0


def smoothed(used: Series) -> float:
    """Teunter, Syntetos & Babai: the probability of a use follows every week, its size only those in which something was used.

    Both begin with the first use and the share of weeks until then. `used`: what each week used, the oldest first.
    """
    return _smoothed(used)[-1] if len(used) else 0.0


def _smoothed(used: Series) -> list[float]:
    said, amount, chance = [], 0.0, 0.0
    for week, each in enumerate(used, 1):
        if not amount:  # nothing was used before
            amount, chance = float(each), 1 / week
        else:
            chance += ODDS * ((each > 0) - chance)
            amount += SIZE * (each - amount) if each > 0 else 0.0
        said.append(chance * amount)
    return said


def mean(used: Series) -> float:
    """The plain mean of the weeks."""
    return _means(used)[-1] if len(used) else 0.0


def _means(used: Series) -> list[float]:
    return [total / week for week, total in enumerate(accumulate(map(float, used)), 1)]


def _last_season(used: Series) -> list[float | None]:
    """What the coming weeks used a year ago; None where there is no year yet."""
    coming = [mean(used[week - YEAR : week - YEAR + AHEAD]) for week in range(YEAR, len(used) + 1)]
    return [None] * (len(used) - len(coming)) + coming


WAYS: dict[str, Callable[[Series], Sequence[float | None]]] = {  # what each says of a week after each week
    "lately": _smoothed,
    "on the whole": _means,
    "a year ago": _last_season,
}


def weekly_use(used: Series) -> WeeklyUse:
    """What to expect of a week, by the forecast that would have come nearest; nothing of too few weeks."""
    if len(used) < FEWEST or not any(used):
        return WeeklyUse()
    weeks, said = np.array(used, dtype=float), _said(used)
    misses = _misses(weeks, said)
    by = min(misses, key=lambda way: misses[way])
    scatter = _scatter(weeks, by) * _times_wider(weeks, by, said[by])
    return WeeklyUse(max(0.0, float(said[by][-1])), scatter, by)


def back_test(used: Series) -> dict[str, float]:
    """By how much each forecast missed the sum of the weeks after it, squared and in the mean, over the second half."""
    return _misses(np.array(used, dtype=float), _said(used))


def _tested(count: int) -> range:
    """The weeks before which each forecast is made again: the second half."""
    return range(max(FEWEST // 2, count // 2), count - AHEAD + 1)


def _said(used: Series) -> dict[str, Weeks]:
    """What each forecast said of a week after each week; of those that said something all through the second half."""
    said = {way: forecast(used) for way, forecast in WAYS.items()}
    first = _tested(len(used)).start - 1
    return {way: np.array(weekly, dtype=float) for way, weekly in said.items() if None not in weekly[first:]}


def _came(used: Weeks) -> Weeks:
    """What the weeks after each week of the second half used."""
    return np.array([used[at : at + AHEAD].sum() for at in _tested(len(used))])


def _misses(used: Weeks, said: dict[str, Weeks]) -> dict[str, float]:
    came = _came(used)
    if not len(came):
        return {"on the whole": 0.0}
    before = np.array(_tested(len(used))) - 1
    return {way: float(np.mean((AHEAD * weekly[before] - came) ** 2)) for way, weekly in said.items()}


def _scatter(used: Weeks, by: str) -> float:
    """The standard deviation of a week and of what is not known of its mean."""
    weeks = {"lately": (2 - ODDS) / ODDS, "a year ago": float(AHEAD)}.get(by, float(len(used)))  # that it hangs on
    return float(used.std(ddof=1)) * math.sqrt(1 + REACH / weeks)


def _times_wider(used: Weeks, by: str, said: Weeks) -> float:
    """How much wider the scatter has to be for the band to have held eight in ten of what came over the second half, where
    anything had been used before. Nothing used is inside where it comes one time in ten.
    """
    begun = np.array([used[:at].any() for at in _tested(len(used))], dtype=bool)
    tested = np.array(_tested(len(used)), dtype=int)[begun]
    came, means = _came(used)[begun], np.maximum(said[tested - 1], A_TRACE)
    scatters = np.maximum([_scatter(used[:at], by) for at in tested], A_TRACE)
    often_none = np.array([(used[:at] == 0).mean() ** AHEAD >= LOW for at in tested], dtype=bool)
    for times in TIMES_WIDER:
        shape, rate = AHEAD * (means / (times * scatters)) ** 2, means / (times * scatters) ** 2
        chance = gammainc(shape, rate * np.maximum(came, A_TRACE))
        inside = (chance <= HIGH) & ((chance >= LOW) | (often_none & (came == 0)))
        if inside.sum() >= (HIGH - LOW) * len(inside):
            return times
    return TIMES_WIDER[-1]
