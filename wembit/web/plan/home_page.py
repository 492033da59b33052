"""What the page of the plan shows: the sill, and the makers with their hours."""

from __future__ import annotations

import datetime as dt
from typing import TYPE_CHECKING

from django.utils.safestring import mark_safe

from wembit.core.contract.requests import WEEK
from wembit.web import clock, numbers
from wembit.web.asked import whole_number_in

from . import queries
from .bench_plan import bench_plan
from .sill.drawing import picked, sill_of
from .sill.figures import SHOWN, on_sill

if TYPE_CHECKING:
    from collections.abc import Iterable

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

    from .models import Project

DAY_NAMES = dict(zip(WEEK, ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"), strict=True))
SHARE = 0.05  # of a making, beneath which nobody is named


def plan_context(request: Request, project: Project | None = None) -> dict:
    """The sill, drawn until something changes, with one project's figure picked."""
    studio, today = request.studio, clock.today(request.studio)
    start = first_shown(request, project)
    drawn = studio.cached_until_change(f"sill:{today}:{start}", lambda: drawn_sill(studio, today, start))
    return {
        "sill": mark_safe(picked(drawn["picture"], [project.pk] if project else [])),
        "start": start,
        "earlier": max(0, start - SHOWN) if start else None,
        "later": start + SHOWN if start + SHOWN < drawn["count"] else None,
        **bench_context(studio),
    }


def first_shown(request: Request, project: Project | None) -> int:
    """The number of the first project that is shown: what the address asks for, or the page on which a project stands."""
    if project is None:
        asked = whole_number_in(request.GET.get("start", "")) or 0
        last = max(queries.projects(request.studio).count() - 1, 0) if asked else 0
        return min(asked, last) // SHOWN * SHOWN
    return queries.place_of(request.studio, project) // SHOWN * SHOWN


def drawn_sill(studio: Studio, today: dt.date, start: int) -> dict:
    """The sill as it is drawn, empty without projects, and how many there are in all."""
    plan = bench_plan(studio)
    rows, count = on_sill(studio, plan, start)
    return {"picture": sill_of(studio, rows, plan, today), "count": count}


def bench_context(studio: Studio) -> dict:
    """Whether anybody has said her hours; every maker with hers as fields show them; a choice of who."""
    makers = queries.at_the_bench(studio)
    return {
        "hours": any(maker.hours for maker in makers),
        "makers": [
            (maker, [(f"{day}_{maker.member.pk}", DAY_NAMES[day], _told(maker, day, studio)) for day in WEEK])
            for maker in makers
        ],
        "who": [(maker.member.pk, maker.name) for maker in makers],
    }


def _told(maker: queries.AtTheBench, day: str, studio: Studio) -> str:
    return numbers.plain(maker.hours[day], 2, studio.decimal_mark) if maker.hours else ""


def shares(whose: Iterable[tuple[str, float]], studio: Studio) -> list[tuple[str, str]]:
    """Who makes how many of what is still to be made, those who make hardly any left out."""
    return [(name, numbers.plain(makings, 1, studio.decimal_mark)) for name, makings in whose if makings >= SHARE]


def who_makes(studio: Studio, project: Project) -> list[tuple[queries.AtTheBench, bool]]:
    """Every maker, and whether she makes the project's figure; nobody where there is only one."""
    makers = queries.at_the_bench(studio)
    figure = project.colourway.version.figure_id
    return [(maker, figure not in maker.leaves) for maker in makers] if len(makers) > 1 else []
