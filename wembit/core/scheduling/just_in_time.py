"""The latest plan of a bench: no job is worked earlier than what is due after it needs.

Read backwards in time it is work that comes at its due day and must be done by today; whichever order it has, a bench that
never rests while there is work has the least left when today is reached. What is due last comes first, so that each job is
worked in one stretch where waits allow it. What is left over is what cannot be done in time.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from .bench_hours import DAY, BenchHours
from .dispatch import State, dispatch
from .jobs import A_MOMENT, Job, Step


class Backwards(BenchHours):
    """A bench whose clock runs backwards from the end of its day `last`; minutes and work are counted from there."""

    def __init__(self, bench: BenchHours, last: int) -> None:
        self.bench = bench
        self.end = (last + 1) * DAY
        self.whole = bench.work_at(self.end)

    def work_at(self, moment: float) -> float:
        return self.whole - self.bench.work_at(self.end - moment)

    def earliest(self, work: float) -> float:
        return self.end - self.bench.goes_on(self.whole - work)

    def goes_on(self, work: float) -> float:
        return self.end - self.bench.earliest(self.whole - work)


@dataclass(frozen=True)
class Stretch:
    """A job's hands, as late as they can be: the first day of them (counted from today, never before it), minutes by day, and
    `over`, the minutes for which no day is left. `begin` is None where no hands are needed.
    """

    begin: int | None
    minutes: Mapping[int, float]
    over: float


def just_in_time(jobs: Sequence[Job], bench: BenchHours) -> list[Stretch]:
    """Each job in the order given, as late as it can be, its ready date aside; days are counted from the bench's first one.
    Raises `OverflowError` where the bench is never open.
    """
    if not jobs:
        return []
    last = max(0, *(job.due for job in jobs))
    turned = [_turned(job) for job in jobs]
    state = State.at_first(turned)
    state.free = [(last - job.due) * DAY + _rest(job) for job in jobs]
    done = dispatch(state, turned, Backwards(bench, last), lambda which, _: -jobs[which].due)
    minutes: list[dict[int, float]] = [{} for _ in jobs]
    over = [0.0] * len(jobs)
    for (which, day), worked in done.worked.items():
        if day <= last:
            minutes[which][last - day] = worked
        else:
            over[which] += worked
    return [
        Stretch(min(days, default=0 if left > 0 else None), days, left)
        for days, left in zip(minutes, over, strict=True)
    ]


def latest(jobs: Sequence[Job], bench: BenchHours, plan: State) -> list[Stretch]:
    """Each job as late as it can be, where what a plan does after a job's due day is over: the rest of it fits by then. A job
    of which an order of work that is blind to waits would leave something keeps the plan's own days, and the others lie
    around it.
    """
    fits: list[dict[int, float]] = [{} for _ in jobs]
    over = [0.0] * len(jobs)
    for (which, day), minutes in plan.worked.items():
        if day <= jobs[which].due:
            fits[which][day] = minutes
        else:
            over[which] += minutes
    rest = [_shortened(job, minutes) for job, minutes in zip(jobs, over, strict=True)]
    days: list[Mapping[int, float]] = list(fits)
    loose, left_over = list(range(len(jobs))), set(range(len(jobs)))
    while left_over:
        stretches = just_in_time([rest[which] for which in loose], bench)
        left_over = {which for which, lies in zip(loose, stretches, strict=True) if lies.over > A_MOMENT}
        for which, lies in zip(loose, stretches, strict=True):
            days[which] = fits[which] if which in left_over else lies.minutes
        for which in left_over:
            bench = bench.without(fits[which])
        loose = [which for which in loose if which not in left_over]
    return [
        Stretch(min(when, default=0 if left > A_MOMENT else None), when, left)
        for when, left in zip(days, over, strict=True)
    ]


def _shortened(job: Job, minutes: float) -> Job:
    """The job without its last minutes of hands."""
    steps = []
    for step in reversed(job.steps):
        off = min(step.minutes, minutes)
        minutes -= off
        steps.append(Step(step.minutes - off, step.wait))
    return replace(job, steps=tuple(reversed(steps)))


def evenly(jobs: Sequence[Job], starts: Sequence[int]) -> list[Stretch]:
    """Jobs of a bench whose hours nobody knows: each spread evenly from its start, or today, to its due day; all of it today
    where that has passed.
    """
    stretches = []
    for job, start in zip(jobs, starts, strict=True):
        first = max(0, min(start, job.due))
        days = range(first, max(first, job.due) + 1)
        each = sum(step.minutes for step in job.steps) / len(days)
        stretches.append(Stretch(first, dict.fromkeys(days, each), 0.0) if each else Stretch(None, {}, 0.0))
    return stretches


def _turned(job: Job) -> Job:
    """Its steps from the last to the first, each with the wait that stands before it."""
    waits = [step.wait for step in job.steps[:-1]][::-1] + [0.0]
    steps = zip(reversed(job.steps), waits, strict=True) if job.steps else ()
    return Job(job.due, tuple(Step(step.minutes, wait) for step, wait in steps))


def _rest(job: Job) -> float:
    """What passes, counted backwards from the end of its due day, before its hands are needed: a wait ends within that day."""
    wait = job.steps[-1].wait if job.steps else 0.0
    return wait + A_MOMENT if wait > 0 else 0.0
