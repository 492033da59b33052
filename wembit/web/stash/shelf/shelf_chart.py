"""The shelf laid out: every lot as its form, its area its grams."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from itertools import groupby
from typing import Any

from wembit.core.colour.colour_words import MANY
from wembit.core.craft.materials import FORMS, NOTIONS
from wembit.web.stash.models import FIBRE, Lot
from wembit.web.stash.swatch import UNTOLD

from .wool_forms import Drawing, drawings

PX2_PER_GRAM = 26.0
LEAST_PX2 = 90.0
NOTION_PX2 = 1700.0
GROUPS = {"breed": "Breed", "hue": "Hue", "drawer": "Drawer", "form": "Form"}


@dataclass(frozen=True)
class DrawnLot:
    """A lot in pixels: `scale` turns the drawing's box into them; hatched from `hatch_y` of the box down."""

    lot: Lot
    drawing: Drawing
    width: float
    height: float
    fill: str
    loose: bool
    hatch_y: float | None
    hatch_height: float
    view_box: str


@dataclass(frozen=True)
class Board:
    """A board of the shelf with its bags."""

    name: str
    lots: list[DrawnLot]


def draw(lot: Lot, px2_per_gram: float = PX2_PER_GRAM, least: float = LEAST_PX2) -> DrawnLot:
    """The lot (with `promised`) at that scale. A lot not weighed yet is an outline of middle size."""
    item = lot.item
    drawing = drawings()[item.form if item.kind == FIBRE else item.notion]
    if item.kind != FIBRE:
        area = NOTION_PX2
    elif not lot.weighed:
        area = 20 * px2_per_gram
    else:
        area = max(float(lot.on_hand) * px2_per_gram, least)
    scale = math.sqrt(area / drawing.area)
    left, top, width, height = drawing.box
    share = min(1.0, float(lot.promised / lot.on_hand)) if lot.on_hand else 0.0
    level = drawing.level(share) if share else None
    return DrawnLot(
        lot=lot,
        drawing=drawing,
        width=round(width * scale, 1),
        height=round(height * scale, 1),
        fill=lot.srgb or UNTOLD,
        loose=not lot.weighed,
        hatch_y=level,
        hatch_height=top + height - level if level is not None else 0.0,
        view_box=f"{left:.1f} {top:.1f} {width:.1f} {height:.1f}",
    )


def boards(lots: Sequence[Lot], by: str) -> list[Board]:
    """The shelf's boards: lots of a group side by side, in the order in which they come."""
    return [Board(name, [draw(lot) for lot in group]) for name, group in groupby(lots, lambda lot: _group(lot, by))]


def _group(lot: Lot, by: str) -> str:
    item = lot.item
    if by == "drawer":
        return f"drawer {lot.drawer.name}" if lot.drawer else "no drawer yet"
    if by == "hue" and item.kind == FIBRE:
        return MANY.get(lot.hue, lot.hue) if lot.hue else "no colour picked yet"
    if item.kind != FIBRE:
        return "notions" if by == "hue" else NOTIONS[item.notion]
    return FORMS[item.form].name if by == "form" else item.what


@dataclass(frozen=True)
class StepChart:
    """A lot's book over its history as path data in a box of 320 × 90, oldest at the left."""

    line: str
    area: str
    most: Decimal


def step_chart(lines: Any) -> StepChart | None:
    """The small chart above the ledger; None while there is but one line."""
    if len(lines) < 2:
        return None
    oldest = list(reversed(lines))
    start, end = oldest[0].entry.recorded_at, oldest[-1].entry.recorded_at
    span = max((end - start).total_seconds(), 1)
    most = max(line.left for line in oldest) or Decimal(1)
    path = ""
    for line in oldest:
        x = 4 + 312 * (line.entry.recorded_at - start).total_seconds() / span
        new = 86 - 80 * float(line.left / most)
        path += f"M{x:.1f} {new:.1f}" if not path else f"H{x:.1f}V{new:.1f}"
    path += "H316"
    return StepChart(path, path + "V86H4Z", most)


@dataclass(frozen=True)
class MonthsChart:
    """Bars of use in a box of 480 × 120: x, height, the month's first day and the amount; the most of them."""

    bars: list[tuple[int, float, dt.date, Decimal]]
    most: Decimal


def months_chart(rows: Sequence[tuple[dt.date, Decimal]]) -> MonthsChart | None:
    """What was used month by month; None where nothing was."""
    most = max((amount for _, amount in rows), default=Decimal(0))
    if not most:
        return None
    return MonthsChart(
        [(40 * n, round(84 * float(amount / most), 1), first, amount) for n, (first, amount) in enumerate(rows)], most
    )
