"""What the open projects ask of the bench's hours: when each has to be begun, when it is done, and how full the days are."""

from __future__ import annotations

import datetime as dt
import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.contract.requests import WEEK
from wembit.core.scheduling.bench_hours import BenchHours
from wembit.core.scheduling.benches import Asked, Together, together
from wembit.core.scheduling.jobs import Job, Step, beside
from wembit.core.scheduling.just_in_time import Stretch, evenly
from wembit.core.scheduling.plan import Planned
from wembit.web import clock
from wembit.web.caches import by_content
from wembit.web.figures.to_core.scaling import at_scale

from .begun import worked_of
from .figure_work import figure_work
from .queries import at_the_bench, open_figures

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

    from .models import Project

DAYS_BEYOND = 15  # the last due day, of which the hours are known


@dataclass(frozen=True)
class Hours:
    """A maker's minutes at the bench by day from today on."""

    name: str
    minutes: Sequence[float]


@dataclass(frozen=True)
class BenchPlan:
    """The open projects at the bench, by their ids: as the hours allow them (empty while nobody has said the hours), the days
    of what is still to be done, as late as they can be, the minutes of what is done, and the colour of the wool that is seen
    most; how many of what is to be made are whose, by name, where several have hours; the hours of each.
    """

    rows: Mapping[UUID, Planned] = field(default_factory=dict)
    stretches: Mapping[UUID, Stretch] = field(default_factory=dict)
    made_min: Mapping[UUID, float] = field(default_factory=dict)
    wool: Mapping[UUID, str] = field(default_factory=dict)
    whose: Mapping[UUID, list[tuple[str, float]]] = field(default_factory=dict)
    hours: Sequence[Hours] = ()

    def begin_by(self, project: Project, today: dt.date) -> dt.date | None:
        """The day by which it has to be begun, or gone on with: as late as the hours allow beside all others, or, while nobody
        has said the hours, its own start; None where nothing is left to do, or it is not open.
        """
        stretch = self.stretches.get(project.pk)
        if stretch is None or stretch.begin is None:
            return None
        return today + dt.timedelta(stretch.begin) if self.rows else project.start


def bench_plan(studio: Studio) -> BenchPlan:
    """The plan with the least greatest lateness. Kept until the next press or day."""
    today = clock.today(studio)
    plan: BenchPlan = studio.cached_until_change(f"bench-plan:{today}", lambda: _bench_plan(studio, today))
    return plan


def _bench_plan(studio: Studio, today: dt.date) -> BenchPlan:
    open_ones, dyed, parts = open_figures(studio)
    if not open_ones:
        return BenchPlan()
    worked, makers = worked_of(studio), [maker for maker in at_the_bench(studio) if maker.hours]
    asked: list[Asked] = []
    made: dict[UUID, float] = {}
    wool: dict[UUID, str] = {}
    for project in open_ones:
        way = project.colourway
        done = min(worked.get(project.pk, 0.0), project.count)
        left = project.count - done
        steps: list[Step] = []
        for size, makings in _by_size(project).items():
            scaled = at_scale(way.version, parts[way.version_id], size)
            work = figure_work(studio, way.version, scaled, dyed[way.pk])
            to_make = sum(min(1.0, max(0.0, number - done)) for number in makings)
            steps = beside(steps, [Step(minutes * to_make, wait) for minutes, wait in work.steps])
            made[project.pk] = made.get(project.pk, 0.0) + (len(makings) - to_make) * sum(row[0] for row in work.steps)
            wool[project.pk] = work.colour
        job = Job((project.due - today).days, tuple(steps), priority=project.priority)
        figure = way.version.figure_id
        asked.append(Asked(job, left, [at for at, maker in enumerate(makers) if figure not in maker.leaves]))
    ids = [project.pk for project in open_ones]
    jobs = [each.job for each in asked]
    if not makers:
        starts = [(project.start - today).days for project in open_ones]
        return BenchPlan({}, dict(zip(ids, evenly(jobs, starts), strict=True)), made, wool)
    benches = [BenchHours(today, {day: maker.hours.get(day, 0.0) for day in WEEK}, maker.days_off) for maker in makers]
    told = [(sorted(maker.hours.items()), sorted(maker.days_off)) for maker in makers]
    mark = hashlib.sha256(repr((today, asked, told)).encode()).hexdigest()
    found: Together = by_content.get_or_make(("together", mark), "", lambda: together(asked, benches))
    days = range(max(job.due for job in jobs) + DAYS_BEYOND)
    whose = [[(makers[at].name, much) for at, much in share.items()] for share in found.makings]
    return BenchPlan(
        dict(zip(ids, found.rows, strict=True)),
        dict(zip(ids, found.stretches, strict=True)),
        made,
        wool,
        dict(zip(ids, whose, strict=True)) if len(makers) > 1 else {},
        [
            Hours(maker.name, [bench.minutes_on(day) for day in days])
            for maker, bench in zip(makers, benches, strict=True)
        ],
    )


def _by_size(project: Project) -> dict[float, list[int]]:
    """The numbers of a project's makings by their size."""
    found: dict[float, list[int]] = {}
    for number in range(1, project.count + 1):
        found.setdefault(project.size_of(number), []).append(number)
    return found
