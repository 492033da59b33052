"""A figure to begin, worked out: in its proportions, as large as it was asked for, in the colours of the shelf."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.proportions import Extent, at_size, extent, natural, proportioned
from wembit.web.figures.files.figure_file import figure_as_json
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import colourway_of, newest_version
from wembit.web.figures.to_core.drafts import Draft, draft
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, plan_figure
from wembit.web.stash.queries import colours

from .shelf_colours import from_the_shelf

if TYPE_CHECKING:
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Studio

TRIES, NEAR = 8, 0.001  # for the size that takes so many grams, and how near to them


@dataclass(frozen=True)
class Begun:
    """What a figure is begun from: stored parts, its slots with the colours that they are thought of in and the fibres that
    they get, and how its size is said.
    """

    name: str
    measure: str
    usual_mm: float
    parts: list[dict[str, Any]]
    colours: dict[str, str]
    items: dict[str, Item]


@dataclass(frozen=True)
class Worked:
    """A draft with its palette, what it takes and how large it is."""

    draft: Draft
    palette: Palette
    plan: FigurePlan
    extent: Extent


def from_plan(studio: Studio, plan: BodyPlan) -> Begun:
    """A body plan in the colours of the shelf."""
    return Begun(
        plan.name, plan.measure, plan.usual_mm, natural(plan), plan.colours, from_the_shelf(studio, plan.colours)
    )


def from_figure(figure: Figure) -> Begun:
    """The newest version of a figure in its first colourway. Its size is said by its height."""
    version, kept = newest_version(figure), figure_as_json(figure)
    way = colourway_of(version)
    palette = Palette.of(way)
    slots = {slot.pk: slot.name for slot in version.slots.all()}
    items = {slots[pk]: item for pk, item in palette.items.items()}
    return Begun(
        figure.name, HIGH, round(extent(kept["parts"]).high, 1) if kept["parts"] else 0.0, kept["parts"],
        {name: palette.colour(pk) for pk, name in slots.items()}, items,
    )  # fmt: skip


def at_length(studio: Studio, begun: Begun, steps: Mapping[str, int], size_mm: float) -> Worked:
    """In these proportions, so long or high. Raises `BadInput`."""
    parts = proportioned(begun.parts, steps)
    return _worked(studio, begun, at_size(parts, size_mm / said(begun, extent(parts))))


def at_grams(studio: Studio, begun: Begun, steps: Mapping[str, int], grams: float) -> Worked:
    """In these proportions, as large as takes so many grams in all. Raises `BadInput`."""
    parts = proportioned(begun.parts, steps)
    times = math.exp(_root(lambda log: math.log(_grams(studio, begun, parts, math.exp(log)) / grams)))
    return _worked(studio, begun, at_size(parts, times))


def said(begun: Begun, found: Extent) -> float:
    """The measure by which the size is said."""
    return found.high if begun.measure == HIGH else found.long


def _worked(studio: Studio, begun: Begun, parts: Sequence[dict[str, Any]]) -> Worked:
    made = draft(studio, begun.name, parts, list(begun.colours))
    seen = colours(studio, [item.pk for item in begun.items.values()])
    palette = made.palette(
        begun.items, begun.colours | {slot: seen[item.pk] for slot, item in begun.items.items() if item.pk in seen}
    )
    return Worked(made, palette, plan_figure(made.version, made.parts, palette), extent(parts))


def _grams(studio: Studio, begun: Begun, parts: Sequence[dict[str, Any]], times: float) -> float:
    return max(_worked(studio, begun, at_size(parts, times)).plan.all.p50, 1e-6)


def _root(off: Callable[[float], float]) -> float:
    """Where a function that rises about three times as fast as its argument is 0: secants."""
    one, value = 0.0, off(0.0)
    two = -value / 3
    for _ in range(TRIES):
        there = off(two)
        if abs(there) < NEAR or two == one:
            break
        slope = (there - value) / (two - one)
        one, value = two, there
        two = two - there / (slope if slope > 0.5 else 3.0)
    return two
