"""What the open projects ask of the bench's hours: when each has to be begun, when it is done, and how full the days are."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.contract.requests import WEEK
from wembit.core.scheduling.bench_hours import BenchHours
from wembit.core.scheduling.jobs import Job, Step
from wembit.core.scheduling.just_in_time import Stretch, evenly, latest
from wembit.core.scheduling.least_lateness import least_late
from wembit.core.scheduling.plan import Planned, rows_of
from wembit.web import clock

from .actions.keep_hours import HOURS
from .begun import worked_of
from .figure_work import figure_work
from .queries import open_figures

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

    from .models import Project

DAYS_BEYOND = 15  # the last due day, of which the hours are known


@dataclass(frozen=True)
class BenchPlan:
    """The open projects at the bench, by their ids: as the hours allow them (empty while nobody has said the hours), the days
    of what is still to be done, as late as they can be, the minutes of what is done, and the colour of the wool that is seen
    most; the minutes that the bench is open by day, from today on.
    """

    rows: Mapping[UUID, Planned] = field(default_factory=dict)
    stretches: Mapping[UUID, Stretch] = field(default_factory=dict)
    made_min: Mapping[UUID, float] = field(default_factory=dict)
    wool: Mapping[UUID, str] = field(default_factory=dict)
    open_min: Sequence[float] = ()

    def begin_by(self, project: Project, today: dt.date) -> dt.date | None:
        """The day by which it has to be begun, or gone on with: as late as the hours allow beside all others, or, while nobody
        has said the hours, its own start; None where nothing is left to do, or it is not open.
        """
        stretch = self.stretches.get(project.pk)
        if stretch is None or stretch.begin is None:
            return None
        return today + dt.timedelta(stretch.begin) if self.rows else project.start


def hours_of(studio: Studio) -> dict[str, float]:
    """Hours by weekday; empty while nobody has said."""
    return dict(studio.habits.get(HOURS, {}))


def bench_plan(studio: Studio) -> BenchPlan:
    """The plan with the least greatest lateness. Kept until the next press or day."""
    today = clock.today(studio)
    plan: BenchPlan = studio.cached_until_change(f"bench-plan:{today}", lambda: _bench_plan(studio, today))
    return plan


def _bench_plan(studio: Studio, today: dt.date) -> BenchPlan:
    hours = hours_of(studio)
    open_ones, dyed, parts = open_figures(studio)
    if not open_ones:
        return BenchPlan()
    worked = worked_of(studio)
    jobs, made, wool = [], {}, {}
    for project in open_ones:
        way = project.colourway
        asked = figure_work(studio, way.version, parts[way.version_id], dyed[way.pk])
        done = min(worked.get(project.pk, 0.0), project.count)
        steps = tuple(Step(minutes * (project.count - done), wait) for minutes, wait in asked.steps)
        jobs.append(Job((project.due - today).days, steps))
        made[project.pk] = done * sum(minutes for minutes, _ in asked.steps)
        wool[project.pk] = asked.colour
    ids = [project.pk for project in open_ones]
    if not hours:
        starts = [(project.start - today).days for project in open_ones]
        return BenchPlan({}, dict(zip(ids, evenly(jobs, starts), strict=True)), made, wool)
    bench = BenchHours(today, {day: hours.get(day, 0.0) for day in WEEK})
    state = least_late(jobs, bench)
    rows, stretches = rows_of(jobs, bench, state), latest(jobs, bench, state)
    last = max(job.due for job in jobs)
    there = [bench.minutes_on(day) for day in range(last + DAYS_BEYOND)]
    return BenchPlan(dict(zip(ids, rows, strict=True)), dict(zip(ids, stretches, strict=True)), made, wool, there)
