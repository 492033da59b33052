"""The sill for a narrow screen: days run down, the rope at the left, figures at the right, in px."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from textwrap import wrap

from wembit.web.plan.bench_plan import Hours

from .figures import OnSill
from .layout import HoursLine, Laid, dates_of, drawn, laid_over, lines_of, shown_days

TOP_PX, LONG_PX = 12.0, 640.0  # above the days, and of the days where they are not too many
WIDE_PX, BASE_X, ROPE_PX, BOARD_X, BOARD_PX = 350.0, 6.0, 84.0, 100.0, 58.0
FIGURE_PX, ROW_PX = 72.0, 96.0  # of a figure; between two figures at the least
LABEL_X, LETTERS, LINE_PX = 244.0, 13, 16.0
HOLD_X, HOLD_GAP_PX = 160.0, 4.0  # of what is touched, and between two of them
BACK_DAYS = 3  # shown before today at the most
LEAST_H = 3.0  # of a rope that is drawn to full width


@dataclass(frozen=True)
class Row:
    """A project: where its figure stands (the middle of its feet), px of a mm, its words line by line, its strand."""

    on: OnSill
    x: float
    y: float
    scale: float
    name: list[tuple[float, str]]
    words: list[tuple[float, str]]
    strand: Laid

    @property
    def box_y(self) -> float:
        return round(self.y - ROW_PX + 12, 1)


@dataclass(frozen=True)
class Upright:
    """All of it, in px."""

    rows: list[Row]
    dates: list[tuple[float, dt.date]]
    folds: list[tuple[float, float, int]]
    lines: list[HoursLine]
    today_y: float
    height: float
    width: float = WIDE_PX
    base_x: float = BASE_X
    board_x: float = BOARD_X
    board_px: float = BOARD_PX
    label_x: float = LABEL_X
    hold_x: float = HOLD_X
    hold_wide: float = WIDE_PX - HOLD_X
    hold_high: float = ROW_PX - HOLD_GAP_PX


def upright(rows: Sequence[OnSill], hours: Sequence[Hours], today: dt.date, mark: str) -> Upright:
    """The same days and the same rope as `layout.sill`; figures that would stand on each other move down."""
    axis = shown_days([row.work for row in rows], today, TOP_PX, LONG_PX, BACK_DAYS)
    over = laid_over(axis, rows, hours, today)
    per_hour = ROPE_PX / max([over.rope.most, *over.there.values(), LEAST_H])
    scale = FIGURE_PX / max([1.0, *(max(row.side.long, row.side.tall) for row in rows)])

    def x(hours: float) -> float:
        return BASE_X + hours * per_hour

    found, lowest = [], 0.0
    for row, strand in zip(rows, over.rope.strands, strict=True):
        y = max(over.place(row.work.due) + FIGURE_PX / 2, lowest + ROW_PX)
        lowest = y
        name, words = wrap(row.title, LETTERS), wrap(row.words, LETTERS + 2)
        top = y - FIGURE_PX + 8
        found.append(
            Row(
                row, BOARD_X + BOARD_PX + 8 + FIGURE_PX / 2, round(y, 1), scale,
                [(round(top + LINE_PX * n, 1), line) for n, line in enumerate(name)],
                [(round(top + LINE_PX * (n + len(name)), 1), line) for n, line in enumerate(words)],
                drawn(row.work, strand, x, (BOARD_X, y - FIGURE_PX / 2), mark, upright=True),
            )
        )  # fmt: skip
    return Upright(
        found,
        dates_of(axis, 26.0),
        [(fold.x, fold.width, round(fold.days / 7)) for fold in axis.folds],
        lines_of(over, x, upright=True),
        round(axis.x(today), 1),
        round(max(over.edges[max(over.edges)], lowest + 16), 1),
    )
