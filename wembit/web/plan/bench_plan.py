"""What the open projects ask of the bench's hours: when each has to be begun, when it is done, and how full the weeks are."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.contract.requests import WEEK
from wembit.core.scheduling.jobs import Job, Step
from wembit.core.scheduling.plan import Load, Planned, planned
from wembit.web import clock
from wembit.web.figures.order_of_work.order import order_of
from wembit.web.figures.queries import palettes, parts_of_many
from wembit.web.figures.to_core.estimating import plan_figure

from .actions.keep_hours import HOURS
from .begun import worked_of
from .queries import projects

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


@dataclass(frozen=True)
class BenchPlan:
    """Each open project as the bench's hours allow it, by its id, and how full the weeks are."""

    rows: Mapping[UUID, Planned]
    load: Sequence[Load]


def hours_of(studio: Studio) -> dict[str, float]:
    """Hours by weekday; empty while nobody has said."""
    return dict(studio.habits.get(HOURS, {}))


def bench_plan(studio: Studio) -> BenchPlan | None:
    """The plan with the least greatest lateness; None while nobody has said the hours, or nothing is planned. Kept until the
    next press or day.
    """
    today = clock.today(studio)
    plan: BenchPlan | None = studio.cached_until_change(f"bench-plan:{today}", lambda: _bench_plan(studio, today))
    return plan


def _bench_plan(studio: Studio, today: dt.date) -> BenchPlan | None:
    hours, open_ones = hours_of(studio), list(projects(studio))
    if not hours or not open_ones:
        return None
    worked = worked_of(studio)
    ways = [project.colourway for project in open_ones]
    dyed, parts = palettes(studio, ways), parts_of_many([way.version for way in ways])
    jobs = []
    for project, way in zip(open_ones, ways, strict=True):
        plan = plan_figure(way.version, parts[way.version_id], dyed[way.pk])
        lines = [] if plan.fault else order_of(way.version, parts[way.version_id], plan)
        left = max(0.0, project.count - worked.get(project.pk, 0.0))
        steps = tuple(Step(line.step.minutes * left, 60 * line.step.wait_hours) for line in lines)
        jobs.append(Job((project.due - today).days, steps))
    rows, load = planned(today, {day: hours.get(day, 0.0) for day in WEEK}, jobs)
    by_id = {project.pk: row for project, row in zip(open_ones, rows, strict=True)}
    return BenchPlan(by_id, load)
