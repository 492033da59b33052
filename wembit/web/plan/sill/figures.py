"""The open projects as they stand on the sill: each one's figure in its colours, and what there is to say of it."""

from __future__ import annotations

import datetime as dt
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING
from uuid import UUID

from django.urls import reverse

from wembit.web import clock
from wembit.web.dates import spoken
from wembit.web.figures.drawing.layout import Picture, pictures
from wembit.web.figures.to_core.scaling import at_scale
from wembit.web.plan.bench_plan import BenchPlan
from wembit.web.plan.models import Project
from wembit.web.plan.queries import NeedNow, makings_told, open_figures, shorts_by_project

from .rope import Work

if TYPE_CHECKING:
    from wembit.web.figures.models import Part
    from wembit.web.studio.models import Studio

SHOWN = 24  # projects at a time
NOTHING = Picture("side", [], 0.0, 0.0, 1.0, 1.0, "")
DECIMALS = re.compile(r"-?\d+\.\d+")
UNKNOWN = "#9b9b9b"  # the colour of a strand whose figure has no wool


def small(picture: Picture) -> Picture:
    """A drawing that is shown so small that neither a hair nor a twentieth of a millimetre is seen of it."""
    shapes = [
        replace(
            shape,
            path=_rounded(shape.path),
            zones=[(paint, _rounded(path)) for paint, path in shape.zones],
            hairs=[],
            line=shape.line and (shape.line[0], _rounded(shape.line[1]), shape.line[2]),
        )
        for shape in picture.shapes
    ]
    return replace(picture, shapes=shapes, grid="")


def _rounded(path: str) -> str:
    return DECIMALS.sub(lambda found: f"{float(found[0]):.1f}".removesuffix(".0"), path)


@dataclass(frozen=True)
class OnSill:
    """An open project: its figure from the side, the colour of its main wool, its work by day, how many are made, whether any
    is begun, what presses most, and the line that says when it is due and that.
    """

    pk: UUID
    url: str
    name: str
    count: int
    made: int
    figure: str
    due: dt.date
    side: Picture
    colour: str
    work: Work
    begun: bool
    pressing: str
    words: str
    sizes: Sequence[float] = ()  # of its makings; empty where all are the figure's own

    @property
    def told(self) -> str:
        """What stands beside it and of what it is a figure, for those who hear it."""
        return f"{self.title} {self.words}, {self.figure}"

    @property
    def title(self) -> str:
        """Its name, and how many, as they stand above the figure."""
        return f"{self.name} ×\u00a0{self.count}" if self.count > 1 else self.name


def on_sill(
    studio: Studio,
    plan: BenchPlan,
    start: int = 0,
    leads: Callable[[Project], str] | None = None,
    draws: Callable[[Project], bool] = lambda _: True,
) -> tuple[list[OnSill], int]:
    """Open projects by due date from the `start`-th on, and how many there are in all; each leads where `leads` says, or to
    its page; those that `draws` leaves out are not drawn. A bounded number of queries.
    """
    today = clock.today(studio)
    rows, dyed, parts = open_figures(studio)
    few = rows[start : start + SHOWN]
    shorts, makings = shorts_by_project(studio), makings_told(studio, few)
    found = []
    for project in few:
        way = project.colourway
        made, begun = makings.get(project.pk, (0, None))
        short = shorts.get(project.pk, [])
        found.append(
            OnSill(
                project.pk,
                leads(project) if leads else reverse("plan:project", args=[studio.slug, project.pk]),
                project.name,
                project.count,
                made,
                way.version.figure.name,
                project.due,
                small(pictures(way.version, _first(project, parts[way.version_id]), dyed[way.pk])["side"])
                if draws(project)
                else NOTHING,
                plan.wool.get(project.pk, UNKNOWN),
                _work(project, plan, short, begun, today),
                begun is not None,
                pressing := _pressing(project, plan, short, begun, today),
                ", ".join(filter(None, [f"due {spoken(project.due, today)}", pressing])),
                project.all_sizes,
            )
        )
    return found, len(rows)


def _first(project: Project, parts: Sequence[Part]) -> Sequence[Part]:
    """The parts in the size of its first making."""
    return at_scale(project.colourway.version, parts, project.size_of(1))


def _work(project: Project, plan: BenchPlan, short: Sequence[NeedNow], begun: dt.date | None, today: dt.date) -> Work:
    stretch = plan.stretches[project.pk]
    first = min((begun - today).days, -1) if begun else -1
    hours = plan.made_min.get(project.pk, 0.0) / 60
    done = dict.fromkeys(range(first, 0), hours / -first) if hours else {}
    reach = 1.0 - max((float(need.short / need.left) for need in short if need.left), default=0.0)
    to_do = {day: minutes / 60 for day, minutes in stretch.minutes.items()}
    return Work(done, to_do, stretch.over / 60, (project.due - today).days, reach)


def _pressing(
    project: Project, plan: BenchPlan, short: Sequence[NeedNow], begun: dt.date | None, today: dt.date
) -> str:
    row, by = plan.rows.get(project.pk), plan.begin_by(project, today)
    if row and row.late_days:
        return f"{_days(row.late_days)} late"
    if project.due < today:
        return "late"
    if names := list(dict.fromkeys(need.item_name for need in short)):
        return f"short of {names[0]}" + (f" and {len(names) - 1} more" if len(names) > 1 else "")
    if by is None:
        return "nothing left to do"
    return f"{'go on' if begun else 'begin'} by {spoken(by, today)}"


def _days(count: int) -> str:
    return f"{count} day{'' if count == 1 else 's'}"
