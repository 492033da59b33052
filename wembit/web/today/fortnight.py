"""The next fortnight day by day: what to order, what comes, what to begin, what is due, what runs out, what to look at."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.urls import reverse

from wembit.web import numbers
from wembit.web.few import Few, few
from wembit.web.plan.bench_plan import bench_plan
from wembit.web.plan.sill.figures import OnSill, on_sill
from wembit.web.restock.queries import on_the_way, tides_now, to_show
from wembit.web.stash.walk.queries import closed, reminders_due

if TYPE_CHECKING:
    from wembit.web.figures.drawing.layout import Picture
    from wembit.web.plan.models import Project
    from wembit.web.restock.queries import OrderPage, TideLine
    from wembit.web.studio.models import Studio

DAYS = 14
FIGURE_PX, PX_PER_MM = 56.0, 0.3  # of the largest figure; of all, where it is no larger
ORDER, PARCEL, BEGIN, DUE, OUT, LOOK = "order", "parcel", "begin", "due", "out", "look"
RANK = {kind: rank for rank, kind in enumerate((ORDER, DUE, PARCEL, BEGIN, OUT, LOOK))}
MOST = 14  # things on the board
WIDE, LETTERS = 3, 9  # columns that a thing takes at the least, and letters that a column holds


@dataclass(frozen=True)
class Thing:
    """Something on a day (counted from today, -1 for what lies behind): where it leads, its name, the line beneath it, and
    what is drawn of it.
    """

    kind: str
    day: int
    date: dt.date | None
    url: str
    name: str
    line: str
    colour: str = ""
    side: Picture | None = None
    scale: float = 0.0

    @property
    def column(self) -> int:
        """The first of the columns it takes; the first of all is for what lies behind."""
        return min(self.day + 2, DAYS + 2 - self.wide)

    @property
    def is_back(self) -> bool:
        """Whether it reaches back from its day, since there is no room after it."""
        return self.column < self.day + 2

    @property
    def wide(self) -> int:
        """Columns."""
        return min(6, max(WIDE, 1 + -(-max(len(self.name), len(self.line)) // LETTERS)))

    @property
    def wide_px(self) -> float:
        return round(self.side.width * self.scale, 1) if self.side else 0.0

    @property
    def high_px(self) -> float:
        return round(self.side.height * self.scale, 1) if self.side else 0.0


@dataclass(frozen=True)
class Ahead:
    """What there is to do by day; wools that run out later, which nobody sells or somebody has to weigh; and the project that
    is due next after the fortnight.
    """

    things: Few[Thing]
    unsold: Few[Thing]
    then: Thing | None


def ahead(studio: Studio, today: dt.date) -> Ahead:
    """At most `MOST` things in the fortnight by day, the most pressing first, each once. A bounded number of queries."""
    wools, projects = list(_wools(studio, today)), list(_projects(studio, today))
    things = [*wools, *projects, *_parcels(studio, on_the_way(studio), today), *_looks(studio, today)]
    near = sorted(
        (thing for thing in things if thing.day < DAYS), key=lambda thing: (thing.day, RANK[thing.kind], thing.name)
    )
    later = [thing for thing in projects if thing.day >= DAYS]
    unsold = [thing for thing in wools if thing.kind == OUT and thing.day >= DAYS]
    return Ahead(few(near, MOST), few(unsold), min(later, key=lambda thing: thing.day, default=None))


def _wools(studio: Studio, today: dt.date) -> Iterable[Thing]:
    """What is to be ordered; what nobody sells, or has to be weighed first, on the day it runs out."""
    for tide in to_show([tide for tide in tides_now(studio) if _shows(tide, today)]):
        by, out = tide.order_by if tide.supplier else None, tide.outlook.runs_out
        url = reverse("restock:item", args=[studio.slug, tide.item.pk])
        line = f"{numbers.NARROW.join(numbers.amount(tide.outlook.order_g, tide.item.unit, studio))} more hold it"
        colour = getattr(tide.item, "srgb", "")
        if by:
            line += ", and it will be late" if tide.outlook.late else ""
            line += f"; {numbers.find_out(tide.item.unit)}" if tide.to_weigh else ""
            yield Thing(ORDER, max(0, (by - today).days), by, url, f"Order {tide.item.name}", line, colour)
        else:
            line += f": {numbers.find_out(tide.item.unit) if tide.to_weigh else 'nobody sells it yet'}"
            yield Thing(
                OUT, max(0, (out - today).days) if out else 0, out, url, f"{tide.item.name} runs out", line, colour
            )


def _shows(tide: TideLine, today: dt.date) -> bool:
    """What is to be ordered later than in the fortnight is Restock's."""
    by = tide.order_by if tide.supplier else None
    return tide.to_order and (by is None or (by - today).days < DAYS)


def _projects(studio: Studio, today: dt.date) -> Iterable[Thing]:
    """What has to be begun, or is due."""
    plan = bench_plan(studio)

    def draws(project: Project) -> bool:
        by = plan.begin_by(project, today) or project.due
        return (min(by, project.due) - today).days < DAYS

    rows, _ = on_sill(studio, plan, draws=draws)
    near = [row for row in rows if _day_of(row) < DAYS]
    scale = min([PX_PER_MM, *(FIGURE_PX / max(row.side.width, row.side.height) for row in near)])
    for row in rows:
        due, day = row.work.due, _day_of(row)
        url = reverse("plan:project", args=[studio.slug, row.pk])
        what = f"{row.count} × {row.figure}"
        if due < DAYS or day >= DAYS:
            words = ", ".join(filter(None, [what, row.pressing]))
            yield Thing(DUE, max(-1, due), row.due, url, row.name, words, row.colour, row.side, scale)
        else:
            date = today + dt.timedelta(day)
            yield Thing(BEGIN, day, date, url, f"Begin {row.name}", what, row.colour, row.side, scale)


def _day_of(row: OnSill) -> int:
    """The day on which a project asks for something: it is due, or has to be begun."""
    if row.work.due < DAYS or row.begun or not row.work.to_do:
        return row.work.due
    return min(row.work.to_do)


def _parcels(studio: Studio, pages: Sequence[OrderPage], today: dt.date) -> Iterable[Thing]:
    for page in pages:
        day = (page.order.expected_on - today).days if page.order.expected_on else 0
        url = reverse("restock:arrival", args=[studio.slug, page.order.pk])
        held = ", ".join(line.item.name for line in page.lines)
        yield Thing(PARCEL, max(-1, day), page.order.expected_on, url, page.order.supplier.name, held)


def _looks(studio: Studio, today: dt.date) -> Iterable[Thing]:
    """Drawers that were cold long enough, and looks that a maker wished for."""
    walk = reverse("stash:walk", args=[studio.slug])
    for drawer in closed(studio):
        if drawer.closed_until:
            day, name = (drawer.closed_until - today).days, f"Drawer {drawer.name}"
            yield Thing(LOOK, max(-1, day), drawer.closed_until, walk, name, "cold long enough: moths?")
    for look in reminders_due(studio):
        where = f"drawer {look.drawer}" if look.drawer else "on the shelf"
        yield Thing(LOOK, max(-1, (look.due - today).days), look.due, walk, look.words, where)
