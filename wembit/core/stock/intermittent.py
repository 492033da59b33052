"""What is used now and then, by the week: from the weeks that have been.

Three forecasts are held against each other on the second half of the weeks: the probability and the size of a use smoothed
apart (R. H. Teunter, A. A. Syntetos & M. Z. Babai, Intermittent demand: linking forecasting to inventory obsolescence,
European J. of Operational Research 214 (2011) 606–615, recalled from memory), the plain mean, and the same week a year ago.
The one whose sum of the next weeks comes nearest is used and named.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

SIZE, ODDS = 0.2, 0.1  # how fast size and probability follow, common practice
AHEAD, YEAR = 4, 52  # weeks that a forecast is held against, and of a year
FEWEST = 8  # weeks from which something is said
REACH = 16  # weeks for which what is not known of the mean is added to the scatter of a week
Series = Sequence[float]


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


def smoothed(used: Series, size: float = SIZE, odds: float = ODDS) -> float:
    """Teunter, Syntetos & Babai: the probability of a use follows every week, its size only those in which something was used.

    Both begin with the first use and the share of weeks until then. `used`: what each week used, the oldest first.
    """
    weeks = [float(each) for each in used]
    first = next((at for at, each in enumerate(weeks) if each > 0), None)
    if first is None:
        return 0.0
    amount, chance = weeks[first], 1 / (first + 1)
    for each in weeks[first + 1 :]:
        chance += odds * ((each > 0) - chance)
        if each > 0:
            amount += size * (each - amount)
    return chance * amount


def mean(used: Series) -> float:
    """The plain mean of the weeks."""
    return float(np.mean(used)) if len(used) else 0.0


def last_season(used: Series) -> float | None:
    """What the coming weeks used a year ago, a week; None where there is no year yet."""
    return mean(used[len(used) - YEAR : len(used) - YEAR + AHEAD]) if len(used) >= YEAR + AHEAD else None


WAYS: dict[str, Callable[[Series], float | None]] = {
    "lately": smoothed,
    "on the whole": mean,
    "a year ago": last_season,
}


def weekly_use(used: Series) -> WeeklyUse:
    """What to expect of a week, by the forecast that would have come nearest; nothing of too few weeks."""
    if len(used) < FEWEST or not any(used):
        return WeeklyUse()
    misses = back_test(used)
    by = min(misses, key=lambda way: misses[way])
    expected = WAYS[by](used)
    weeks = {"lately": (2 - ODDS) / ODDS, "a year ago": float(AHEAD)}.get(by, float(len(used)))  # that it hangs on
    return WeeklyUse(max(0.0, expected or 0.0), float(np.std(used, ddof=1)) * math.sqrt(1 + REACH / weeks), by)


def back_test(used: Series) -> dict[str, float]:
    """By how much each forecast missed the sum of the weeks after it, squared and in the mean, over the second half."""
    half = max(FEWEST // 2, len(used) // 2)
    misses: dict[str, list[float]] = {}
    for at in range(half, len(used) - AHEAD + 1):
        came = sum(used[at : at + AHEAD])
        for way, expects in WAYS.items():
            if (weekly := expects(used[:at])) is not None:
                misses.setdefault(way, []).append((AHEAD * weekly - came) ** 2)
    whole = max(map(len, misses.values()), default=0)
    return {way: float(np.mean(each)) for way, each in misses.items() if len(each) == whole} or {"on the whole": 0.0}
