"""Work at the bench, moment by moment: the foremost of the jobs that can be worked, interrupted when a more urgent one comes.

Without waits and ready dates the order of due dates makes the greatest lateness least (J. R. Jackson, Scheduling a production
line to minimize maximum tardiness, Management Science Research Project 43, UCLA 1955), and with ready dates, where work may be
interrupted (W. A. Horn, Some simple scheduling algorithms, Naval Research Logistics Quarterly 21 (1974) 177–185).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from heapq import heappop, heappush

from .bench_hours import DAY, EASE, BenchHours
from .jobs import Job, finish_day

Urgency = Callable[[int, int], float]  # of a job's step: the least is worked first


@dataclass
class State:
    """How far the jobs are at a moment: each one's step, what its hands still take, from when on that can go on; when it was
    begun and finished (a day, None before that), and the minutes by job and day.
    """

    now: float
    step: list[int]
    left: list[float]
    free: list[float]
    begun: list[float | None]
    finished: list[int | None]
    worked: dict[tuple[int, int], float] = field(default_factory=dict)

    @classmethod
    def at_first(cls, jobs: Sequence[Job]) -> State:
        """Nothing is begun."""
        count = len(jobs)
        left = [job.steps[0].minutes if job.steps else 0.0 for job in jobs]
        return cls(0.0, [0] * count, left, [job.opens for job in jobs], [None] * count, [None] * count)

    def copy(self) -> State:
        return State(
            self.now, self.step[:], self.left[:], self.free[:], self.begun[:], self.finished[:], dict(self.worked)
        )

    def by_day(self) -> dict[int, float]:
        """The minutes of each day, all jobs together."""
        days: dict[int, float] = {}
        for (_, day), minutes in self.worked.items():
            days[day] = days.get(day, 0.0) + minutes
        return days

    def key(self) -> tuple:
        """What the rest of the work hangs on."""
        left = tuple(round(each, 4) for each in self.left)
        return round(self.now, 4), tuple(self.step), left, tuple(round(max(each, self.now), 4) for each in self.free)


def settle(state: State, jobs: Sequence[Job], which: int) -> None:
    """Pass the steps of a job that need no more hands, as soon as each can be."""
    job = jobs[which]
    if not job.steps and state.finished[which] is None:
        state.begun[which] = job.opens
        state.finished[which] = finish_day(job.opens, None)
    while state.finished[which] is None and state.left[which] <= EASE and state.free[which] <= state.now + EASE:
        step = job.steps[state.step[which]]
        moment = max(state.free[which], state.now) if step.minutes > 0 else state.free[which]
        if state.begun[which] is None:
            state.begun[which] = moment
        state.free[which] = moment + step.wait
        state.step[which] += 1
        if state.step[which] == len(job.steps):
            state.finished[which] = finish_day(state.free[which], step)
        else:
            state.left[which] = job.steps[state.step[which]].minutes


def work_on(state: State, jobs: Sequence[Job], bench: BenchHours, which: int, until: float) -> None:
    """The hands of one job work on until its step is done, or until that moment."""
    done = bench.work_at(state.now)
    begins = bench.goes_on(done)
    if begins >= until - EASE:
        state.now = until
        return
    if state.begun[which] is None:
        state.begun[which] = begins
    ends = bench.earliest(done + state.left[which])
    whole = ends <= until + EASE
    end = ends if whole else until
    _note(state, bench, which, begins, end)
    state.left[which] = 0.0 if whole else state.left[which] - (bench.work_at(until) - done)
    state.now = end
    if whole:
        state.free[which] = end


def _note(state: State, bench: BenchHours, which: int, begins: float, end: float) -> None:
    """Write down the minutes of a job between two moments, day by day."""
    for day in range(math.floor(begins / DAY), math.floor((end - EASE) / DAY) + 1):
        minutes = bench.work_at(min(end, (day + 1) * DAY)) - bench.work_at(max(begins, day * DAY))
        if minutes > 0:
            state.worked[which, day] = state.worked.get((which, day), 0.0) + minutes


def dispatch(state: State, jobs: Sequence[Job], bench: BenchHours, urgency: Urgency) -> State:
    """The state when all is finished, the foremost worked at each moment; `state` itself is left as it is."""
    state = state.copy()
    coming: list[tuple[float, int]] = []
    ready: list[tuple[float, int]] = []
    for which in range(len(jobs)):
        settle(state, jobs, which)
        if state.finished[which] is None:
            heappush(coming, (state.free[which], which))
    while coming or ready:
        while coming and coming[0][0] <= state.now + EASE:
            _, which = heappop(coming)
            settle(state, jobs, which)
            _queue(state, which, coming, ready, urgency)
        if not ready:
            if coming:
                state.now = max(state.now, coming[0][0])
            continue
        _, which = heappop(ready)
        work_on(state, jobs, bench, which, coming[0][0] if coming else math.inf)
        settle(state, jobs, which)
        _queue(state, which, coming, ready, urgency)
    return state


def _queue(state: State, which: int, coming: list, ready: list, urgency: Urgency) -> None:
    if state.finished[which] is not None:
        return
    if state.free[which] > state.now + EASE:
        heappush(coming, (state.free[which], which))
    else:
        heappush(ready, (urgency(which, state.step[which]), which))


def greatest_lateness(state: State, jobs: Sequence[Job]) -> int:
    """Of a state in which all is finished, in days; below zero where all are early."""
    return max(
        (int(day) - job.due for day, job in zip(state.finished, jobs, strict=True) if day is not None), default=0
    )
