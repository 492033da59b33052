"""What one figure asks of hands, step by step, and the wool that is seen most of it: kept by all that it hangs on."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from wembit.web.caches import by_content
from wembit.web.figures.order_of_work.order import order_of
from wembit.web.figures.to_core.estimating import BARE, FigurePlan, Palette, plan_figure

if TYPE_CHECKING:
    from django.db.models import Model

    from wembit.web.figures.models import Part, Version
    from wembit.web.studio.models import Studio


@dataclass(frozen=True)
class FigureWork:
    """Minutes of hands of each step of one figure and minutes by the clock behind it; none where it cannot be computed. The
    colour of the wool of which most is seen.
    """

    steps: tuple[tuple[float, float], ...]
    colour: str


def figure_work(studio: Studio, version: Version, parts: Sequence[Part], palette: Palette) -> FigureWork:
    """Of a version in a colourway, as this studio's hands and ways have it. `parts` come with their layers."""
    mark = _mark(studio, version, parts, palette)
    work: FigureWork = by_content.get_or_make(("figure-work", mark), "", lambda: _worked_out(version, parts, palette))
    return work


def _worked_out(version: Version, parts: Sequence[Part], palette: Palette) -> FigureWork:
    plan = plan_figure(version, parts, palette)
    lines = [] if plan.fault else order_of(version, parts, plan)
    steps = tuple((line.step.minutes, 60 * line.step.wait_hours) for line in lines)
    return FigureWork(steps, _seen_most(plan, palette))


def _mark(studio: Studio, version: Version, parts: Sequence[Part], palette: Palette) -> str:
    """A short name of every stored value from which the work is worked out."""
    stuff = [
        _row(version),
        *([_row(part), [_row(layer) for layer in part.layers.all()]] for part in parts),
        sorted((str(slot), _row(item), repr(item.source)) for slot, item in palette.items.items()),
        sorted((str(slot), colour) for slot, colour in palette.colours.items()),
        sorted(studio.hands.items()),
        sorted(studio.habits.items()),
    ]
    return hashlib.sha256(repr(stuff).encode()).hexdigest()


def _row(thing: Model) -> list[Any]:
    return [getattr(thing, field.attname) for field in thing._meta.concrete_fields]


def _seen_most(plan: FigurePlan, palette: Palette) -> str:
    """The colour of the wool of which most is seen, by weight."""
    grams: dict[str, float] = {}
    for layer in plan.layers():
        if layer.seen:
            colour = palette.colour(layer.layer.slot_id)
            grams[colour] = grams.get(colour, 0.0) + layer.grams.middle
    return max(grams, key=lambda colour: grams[colour], default=BARE)
