"""What a figure takes, as wool at the scale of the shelf, in front of what is free of it there."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web.figures.to_core.estimating import Palette, Sum
from wembit.web.stash.models import Item
from wembit.web.stash.queries import with_free
from wembit.web.stash.shelf.shelf_chart import LEAST_PX2, PX2_PER_GRAM
from wembit.web.stash.shelf.wool_forms import Drawing, drawings
from wembit.web.stash.swatch import UNTOLD

TALL, MARGIN = 96.0, 2.0  # px of the row that wool is drawn in; what is free may reach beyond it
UNKNOWN_FORM = "batt"


if TYPE_CHECKING:
    from decimal import Decimal
    from uuid import UUID


@dataclass(frozen=True)
class Laid:
    """A form of wool drawn so large: how its drawing is moved and scaled, and how wide and high it becomes, in px."""

    x: float
    y: float
    scale: float
    width: float
    height: float


@dataclass(frozen=True)
class Taken:
    """A wool with its grams and what is free of it; `short` where that is less, and nobody has a bag to weigh."""

    item: Item | None
    slot: str
    colour: str
    grams: float
    free: float
    short: float
    drawing: Drawing
    need: Laid
    there: Laid | None
    width: float


def takes_row(sums: Sequence[Sum], palette: Palette, there: Mapping[UUID, Decimal] | None = None) -> list[Taken]:
    """The wools in the order of their grams, seen and hidden together; `there`: what counts as free of each item, where that
    is not what nobody else was promised.
    """
    grams: dict[object, float] = {}
    first: dict[object, Sum] = {}
    for each in sums:
        key = each.item.pk if each.item else each.slot_name
        first.setdefault(key, each)
        grams[key] = grams.get(key, 0.0) + each.grams.p50
    told = {item.pk: item for item in with_free([each.item for each in first.values() if each.item])}
    free = {key: item.free for key, item in told.items()} | (dict(there) if there is not None else {})
    colours = {item.pk: palette.colour(slot) for slot, item in palette.items.items()}
    return [
        _taken(first[key], told.get(key), colours.get(key, UNTOLD), grams[key], float(free.get(key, 0)))  # type: ignore[call-overload]
        for key in sorted(grams, key=lambda key: -grams[key])
    ]


def _taken(each: Sum, item: Item | None, colour: str, grams: float, free: float) -> Taken:
    drawing = drawings()[item.form if item else UNKNOWN_FORM]
    short = max(grams - free, 0.0) if item and not item.unweighed else 0.0
    need, there = _size(drawing, grams), _size(drawing, free) if free else None
    width = max(need[1], there[1] if there else 0.0) + 2 * MARGIN
    return Taken(
        item, each.slot_name, colour, grams, free, short, drawing, _laid(drawing, need, width),
        _laid(drawing, there, width) if there else None, round(width, 1),
    )  # fmt: skip


def _size(drawing: Drawing, grams: float) -> tuple[float, float, float]:
    """Scale, width and height of so much wool as the shelf draws it."""
    scale = math.sqrt(max(grams * PX2_PER_GRAM, LEAST_PX2) / drawing.area)
    return scale, drawing.box[2] * scale, drawing.box[3] * scale


def _laid(drawing: Drawing, size: tuple[float, float, float], width: float) -> Laid:
    """In the middle of its cell, on its ground."""
    scale, wide, high = size
    left, top = drawing.box[:2]
    return Laid((width - wide) / 2 - left * scale, TALL - high - top * scale, scale, wide, high)
