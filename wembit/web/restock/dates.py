"""The days of a studio that lie ahead: by when to order, what comes, what begins and is due."""

from __future__ import annotations

from typing import TYPE_CHECKING

from wembit.core.icalendar import Day
from wembit.web import clock, numbers
from wembit.web.plan.bench_plan import bench_plan
from wembit.web.plan.queries import projects

from .queries import on_the_way, tides_now

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


def days_ahead(studio: Studio) -> list[Day]:
    """In their order. Names stay the same while the thing is the same, so that a calendar moves what moved."""
    days, plan, today = [], bench_plan(studio), clock.today(studio)
    for project in projects(studio):
        what = f"{project.count} × {project.colourway.version.figure.name}"
        if by := plan.begin_by(project, today):
            days.append(Day(f"begin-{project.pk}@wembit", by, f"Begin {project.name}", what))
        days.append(Day(f"due-{project.pk}@wembit", project.due, f"{project.name} is due", what))
    for tide in tides_now(studio):
        if tide.to_order and tide.order_by and tide.supplier:
            amount = numbers.NARROW.join(numbers.amount(tide.outlook.order_g, tide.item.unit, studio))
            words = f"Last day to order {tide.item.name}"
            days.append(Day(f"order-{tide.item.pk}@wembit", tide.order_by, words, f"{amount}, {tide.supplier.name}"))
    for page in on_the_way(studio):
        if page.order.expected_on:
            held = ", ".join(line.item.name for line in page.lines)
            words = f"Parcel from {page.order.supplier.name}"
            days.append(Day(f"parcel-{page.order.pk}@wembit", page.order.expected_on, words, held))
    return sorted(days, key=lambda day: (day.date, day.uid))
