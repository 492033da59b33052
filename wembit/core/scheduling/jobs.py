"""Jobs of a bench: steps of hands with waits behind them, and how late each can begin, alone on the bench."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from .bench_hours import DAY, EASE, OPENS, BenchHours

A_MOMENT = 1e-3  # minutes: what is over at midnight belongs to the next day


@dataclass(frozen=True)
class Step:
    """Minutes of hands, and minutes by the clock that pass after them before the next step, or the finish."""

    minutes: float
    wait: float = 0.0


@dataclass(frozen=True)
class Job:
    """Steps one after the other; the day on which it is due and that from which it can be worked, counted from the first
    day; `priority`: what has a lower one is worked first, whatever is due when.
    """

    due: int
    steps: tuple[Step, ...]
    ready: int = 0
    priority: int = 0

    @property
    def opens(self) -> float:
        """The moment from which it can be worked."""
        return max(0, self.ready) * DAY + OPENS


def beside(steps: Sequence[Step], more: Sequence[Step]) -> list[Step]:
    """The steps of makings in one size and in another, done together where they are the same steps, else one after another."""
    if not steps or len(steps) != len(more):
        return [*steps, *more]
    return [Step(a.minutes + b.minutes, max(a.wait, b.wait)) for a, b in zip(steps, more, strict=True)]


def finish_day(moment: float, step: Step | None) -> int:
    """The day of a finish: hands that rest when the bench closes at midnight have worked on the day before."""
    by_hand = step is not None and step.wait <= 0 and step.minutes > 0
    return math.floor((moment - A_MOMENT) / DAY if by_hand else (moment + EASE) / DAY)


def backwards(job: Job, bench: BenchHours, last_day: int) -> tuple[list[float], float]:
    """The latest ends of each step's hands so that the job is finished on `last_day`, alone on the bench; and when it
    begins.
    """
    moment = (last_day + 1) * DAY - A_MOMENT
    ends = []
    for step in reversed(job.steps):
        moment -= step.wait
        if step.minutes > 0:
            done = bench.work_at(moment)
            ends.append(moment)
            moment = bench.goes_on(done - step.minutes)
        else:
            ends.append(moment)
    return ends[::-1], moment


def latest_start(job: Job, bench: BenchHours) -> int:
    """The day on which it has to be begun, alone on the bench, to be finished on its due day."""
    return math.floor((backwards(job, bench, job.due)[1] + EASE) / DAY) if job.steps else job.due
