"""Several benches, one a maker: whose makings are whose, so that none has more than its hours hold while another rests.

The makings are given out one after the other, what is due first before what is due later, each to the bench on which it would
be finished first among those that can make it: list scheduling (R. L. Graham, Bounds on multiprocessing timing anomalies, SIAM
Journal on Applied Mathematics 17 (1969) 416–429). Then each bench is planned by itself.
"""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field, replace

from .bench_hours import BenchHours
from .jobs import Job, Step
from .just_in_time import Stretch, latest
from .least_lateness import least_late
from .plan import Planned, rows_of

MOST_PIECES = 12  # of a job, given out one by one


@dataclass(frozen=True)
class Asked:
    """A job of so many makings (part of one counts as a share of it), and the benches on which it can be made, by number."""

    job: Job
    makings: float
    able: Collection[int]

    @property
    def minutes(self) -> float:
        return sum(step.minutes for step in self.job.steps)


@dataclass(frozen=True)
class Together:
    """All jobs in the order asked: the plan's rows, the days as late as they can be, and how many makings are whose."""

    rows: list[Planned] = field(default_factory=list)
    stretches: list[Stretch] = field(default_factory=list)
    makings: list[Mapping[int, float]] = field(default_factory=list)


def together(asked: Sequence[Asked], benches: Sequence[BenchHours]) -> Together:
    """The benches' plan; what no open bench is able to make goes to those that are open. Raises `OverflowError` for none."""
    whose = shared_out(asked, benches)
    rows: list[list[Planned]] = [[] for _ in asked]
    stretches: list[list[Stretch]] = [[] for _ in asked]
    for bench, hours in enumerate(benches):
        mine = [at for at, makings in enumerate(whose) if bench in makings]
        jobs = [_part(asked[at].job, whose[at][bench] / (sum(whose[at].values()) or 1.0)) for at in mine]
        if jobs:
            state = least_late(jobs, hours)
            for at, row, stretch in zip(mine, rows_of(jobs, hours, state), latest(jobs, hours, state), strict=True):
                rows[at].append(row)
                stretches[at].append(stretch)
    return Together([_row(each) for each in rows], [_stretch(each) for each in stretches], whose)


def shared_out(asked: Sequence[Asked], benches: Sequence[BenchHours]) -> list[Mapping[int, float]]:
    """How many makings of each job each bench is given."""
    open_ones = [bench for bench, hours in enumerate(benches) if any(hours.week)]
    if not open_ones:
        raise OverflowError("no bench is ever open")
    ahead = dict.fromkeys(open_ones, 0.0)
    whose: list[Mapping[int, float]] = [{} for _ in asked]
    for at in sorted(range(len(asked)), key=lambda which: (asked[which].job.priority, asked[which].job.due)):
        each = asked[at]
        able = [bench for bench in open_ones if bench in each.able] or open_ones
        pieces = min(MOST_PIECES, math.ceil(each.makings)) or 1
        given: dict[int, float] = {}
        for _ in range(pieces):
            bench = min(able, key=lambda one: benches[one].earliest(ahead[one] + each.minutes / pieces))
            ahead[bench] += each.minutes / pieces
            given[bench] = given.get(bench, 0.0) + each.makings / pieces
        whose[at] = given
    return whose


def _part(job: Job, share: float) -> Job:
    """A share of its makings: as many steps, each so much shorter; what dries takes as long as ever."""
    return replace(job, steps=tuple(Step(step.minutes * share, step.wait) for step in job.steps))


def _row(parts: Sequence[Planned]) -> Planned:
    """A job of which several benches have a part."""
    return Planned(
        min(part.latest_start for part in parts),
        min(part.start for part in parts),
        max(part.finish for part in parts),
        max(part.late_days for part in parts),
    )


def _stretch(parts: Sequence[Stretch]) -> Stretch:
    minutes: dict[int, float] = {}
    for part in parts:
        for day, much in part.minutes.items():
            minutes[day] = minutes.get(day, 0.0) + much
    begins = [part.begin for part in parts if part.begin is not None]
    return Stretch(min(begins, default=None), minutes, sum(part.over for part in parts))
