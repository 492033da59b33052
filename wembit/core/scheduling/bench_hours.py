"""The hours of one bench as a clock: minutes since the first day's midnight, and the work that fits until then.

The bench opens at 09:00 for so many hours on each weekday and not at all on days off. Days are counted from the first one, 0;
earlier ones are negative. Work is counted from the first day's opening.
"""

from __future__ import annotations

import datetime as dt
import math
from bisect import bisect_left
from collections.abc import Callable, Iterable, Mapping, Sequence
from copy import copy
from itertools import accumulate

from wembit.core.contract.requests import WEEK

DAY, OPENS = 1440.0, 540.0  # minutes
EASE = 1e-6  # minutes: what reckoning in floats may be off
MOST_DAYS = 3_000_000  # beyond, dates end


class BenchHours:
    """The bench's capacity by day and the moments at which work is done; all times in minutes since midnight of `first`."""

    def __init__(self, first: dt.date, hours: Mapping[str, float], days_off: Iterable[dt.date] = ()) -> None:
        self.first = first
        weekday = first.weekday()
        self.week = [60.0 * hours[WEEK[(weekday + n) % 7]] for n in range(7)]
        self.before_in_week = [sum(self.week[:n]) for n in range(8)]
        off = {(day - first).days for day in days_off}
        self._take({day: self.week[day % 7] for day in off})

    def _take(self, minutes: Mapping[int, float]) -> None:
        """So many minutes of these days are not there, the last ones of each."""
        self.taken = minutes
        self.off = sorted(minutes)
        self.off_before = [0.0, *accumulate(minutes[day] for day in self.off)]
        self.off_first = self.off_before[bisect_left(self.off, 0)]

    def without(self, minutes: Mapping[int, float]) -> BenchHours:
        """The same bench, on which so many minutes of these days are spoken for."""
        bench = copy(self)
        taken = {day: self.taken.get(day, 0.0) + minutes.get(day, 0.0) for day in {*self.taken, *minutes}}
        bench._take({day: min(much, self.week[day % 7]) for day, much in taken.items()})
        return bench

    def minutes_on(self, day: int) -> float:
        """What the bench is open on that day."""
        return self.week[day % 7] - self.taken.get(day, 0.0)

    def until(self, day: int) -> float:
        """The work from the first day's opening until that day's; below zero for a day before."""
        weeks, rest = divmod(day, 7)
        whole = weeks * self.before_in_week[7] + self.before_in_week[rest]
        return whole - (self.off_before[bisect_left(self.off, day)] - self.off_first)

    def work_at(self, moment: float) -> float:
        """The work that is done until a moment."""
        day = math.floor(moment / DAY)
        return self.until(day) + min(max(0.0, moment - day * DAY - OPENS), self.minutes_on(day))

    def earliest(self, work: float) -> float:
        """The first moment at which so much work is done."""
        day = self._first_day(work, lambda each: self.until(each + 1) >= work - EASE)
        return day * DAY + OPENS + max(0.0, work - self.until(day))

    def goes_on(self, work: float) -> float:
        """The moment from which the bench works on, so much being done: the latest one."""
        day = self._first_day(work, lambda each: self.until(each + 1) > work + EASE)
        return day * DAY + OPENS + max(0.0, work - self.until(day))

    def _first_day(self, work: float, reached: Callable[[int], bool]) -> int:
        """The first day for which `reached` holds, which it does from then on; looked for from where so much work would be
        done without any days off.
        """
        a_week = self.before_in_week[7]
        low = high = min(max(math.floor(7 * work / a_week), -MOST_DAYS), MOST_DAYS) if a_week else 0
        step = 1
        while not reached(high):
            if high >= MOST_DAYS:
                raise OverflowError("the work ends beyond the calendar")
            low, high, step = high, min(high + step, MOST_DAYS), step * 2
        while low == high or reached(low):
            if low <= -MOST_DAYS:
                raise OverflowError("the work begins before the calendar")
            low, high, step = max(low - step, -MOST_DAYS), low, step * 2
        while high - low > 1:
            middle = (low + high) // 2
            low, high = (low, middle) if reached(middle) else (middle, high)
        return high

    def date(self, day: int) -> dt.date:
        """A day as a date."""
        return self.first + dt.timedelta(day)

    def weeks(self, first: int, last: int) -> Sequence[tuple[dt.date, int, int]]:
        """The Monday of each week from one day to another, and its first and last day of these; whole but for the first
        one.
        """
        rows, day = [], first
        while day <= last:
            weekday = self.date(day).weekday()
            rows.append((self.date(day - weekday), day, day + 6 - weekday))
            day += 7 - weekday
        return rows
