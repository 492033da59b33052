"""How many needles break in a week, from those that broke in the hours that were worked.

Breaks come by chance, so many in an hour: of `breaks` in some hours the rate is a gamma variable of that shape, and the breaks
in hours to come are negative binomial, the gamma mixture of Poisson counts (N. L. Johnson, A. W. Kemp & S. Kotz, Univariate
Discrete Distributions, 3rd ed. 2005, ch. 5).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from .intermittent import WeeklyUse

FEWEST = 3  # breaks from which a rate is told
BY_HOURS = "hour by hour"


@dataclass(frozen=True)
class Breakage:
    """So many needles of a kind broke in so many hours of work, more than 0."""

    breaks: int
    hours: float

    @property
    def hours_each(self) -> float:
        """One breaks in so many hours, to a tenth."""
        return round(self.hours / self.breaks, 1)

    def weekly(self, hours_a_week: float) -> WeeklyUse:
        """What a week of so many hours breaks."""
        mean = self.breaks * hours_a_week / self.hours
        return WeeklyUse(mean, math.sqrt(mean + mean**2 / self.breaks), BY_HOURS)


def breakage(breaks: int, hours: float) -> Breakage | None:
    """None where too few broke, or nothing was worked, to say anything."""
    return Breakage(breaks, hours) if breaks >= FEWEST and hours > 0 else None
