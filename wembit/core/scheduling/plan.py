"""The plan of a bench: when each job is begun and finished, how late it is, and how full each week."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from .bench_hours import DAY, EASE, BenchHours
from .dispatch import State
from .jobs import Job, latest_start
from .least_lateness import least_late


@dataclass(frozen=True)
class Planned:
    """A job: the day on which it has to be begun at the latest, alone on the bench; when the plan begins and finishes it, and
    by how many days that is too late.
    """

    latest_start: dt.date
    start: dt.date
    finish: dt.date
    late_days: int


@dataclass(frozen=True)
class Load:
    """A week by its Monday: minutes of hands that are planned, and that there are."""

    week: dt.date
    minutes: float
    capacity_min: float


def planned(
    today: dt.date, hours: Mapping[str, float], jobs: Sequence[Job], days_off: Iterable[dt.date] = ()
) -> tuple[list[Planned], list[Load]]:
    """Each job in the order given, and the weeks until the last of them is finished. `hours` by `WEEK`; days of jobs are
    counted from today, which counts whole.
    """
    bench = BenchHours(today, hours, days_off)
    state = least_late(jobs, bench)
    return rows_of(jobs, bench, state), _load(bench, state)


def rows_of(jobs: Sequence[Job], bench: BenchHours, state: State) -> list[Planned]:
    """Each job as a finished state has it."""
    rows = []
    for job, begun, finished in zip(jobs, state.begun, state.finished, strict=True):
        day = int(finished or 0)
        start = math.floor(((begun or 0.0) + EASE) / DAY)
        late = max(0, day - job.due)
        rows.append(Planned(bench.date(latest_start(job, bench)), bench.date(start), bench.date(day), late))
    return rows


def _load(bench: BenchHours, state: State) -> list[Load]:
    """The weeks until the last job is finished."""
    worked, last = state.by_day(), max((int(day or 0) for day in state.finished), default=0)
    return [
        Load(
            monday,
            sum(worked.get(day, 0.0) for day in range(first, end + 1)),
            sum(bench.minutes_on(day) for day in range(first, end + 1)),
        )
        for monday, first, end in bench.weeks(0, last)
    ]
