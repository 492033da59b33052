"""The plan drawn: days by width, a bar from start to due date for each project."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web.dates import spoken

from .days_axis import days_axis

if TYPE_CHECKING:
    from .queries import NeedNow, PlannedNow

ROW_PX = 76.0
LEFT_PX = 20.0
TOP_PX = 44.0
NAMED = 2  # of what a project is short of
LABEL_PX = 52.0  # how wide a date is


@dataclass(frozen=True)
class Bar:
    """A project on the calendar, in px as it is written, and what stands above and under its bar; `done_width` is empty while
    nothing is finished.
    """

    project: PlannedNow
    x: str
    y: int
    width: str
    done_width: str
    short: str
    words: str


@dataclass(frozen=True)
class Calendar:
    """Bars and week lines in pixels; `today_x` is where today begins; of each fold x, width and how many weeks are in it."""

    bars: list[Bar]
    weeks: list[tuple[float, dt.date]]
    folds: list[tuple[float, float, int]]
    today_x: float
    width: float
    height: float

    @property
    def last_label_x(self) -> float:
        """A date further to the right would be cut."""
        return self.width - LABEL_PX


def _names(needs: Sequence[NeedNow]) -> str:
    """What a project is short of, as much of it as fits under its bar."""
    names = list(dict.fromkeys(need.item_name for need in needs))
    beyond = len(names) - NAMED
    return ", ".join(names[:NAMED]) + (f" and {beyond} more" if beyond > 0 else "")


def _words(project: PlannedNow, short: str, today: dt.date) -> str:
    late = ", late" if project.due < today else ""
    return (
        f"{project.makings} × {project.figure}, due {spoken(project.due, today)}{late}{short and f'; short of {short}'}"
    )


def calendar(projects: Sequence[PlannedNow], shorts: dict, begun: dict, today: dt.date) -> Calendar:
    """The open projects from the earliest start (at most 3 weeks back) to a week after the last due date."""
    first = min([today, *(project.start for project in projects)])
    first = max(first, today - dt.timedelta(21))
    first -= dt.timedelta(first.weekday())
    last = max([today + dt.timedelta(28), *(project.due for project in projects)]) + dt.timedelta(9)
    marks = [today, *(each for project in projects for each in (project.start, project.due))]
    axis = days_axis(first, last, marks, LEFT_PX)

    bars = []
    for row, project in enumerate(projects):
        left, day = axis.x(project.start), axis.day_px
        width = max(day, axis.x(project.due) + day - left)
        done = width * begun.get(project.pk, 0.0)
        short = _names(shorts.get(project.pk, []))
        bars.append(
            Bar(
                project, f"{left:.1f}", int(TOP_PX + row * ROW_PX), f"{width:.1f}", f"{done:.1f}" if done else "",
                short, _words(project, short, today),
            )
        )  # fmt: skip
    weeks = [(axis.x(date), date) for date in axis.mondays]
    folds = [(fold.x, fold.width, round(fold.days / 7)) for fold in axis.folds]
    return Calendar(bars, weeks, folds, axis.x(today), axis.x(last), TOP_PX + len(projects) * ROW_PX + 12)
