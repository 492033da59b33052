"""A figure to begin, worked out: in its proportions, as large as it was asked for, in the colours of the shelf."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from copy import deepcopy
from dataclasses import dataclass, replace
from functools import cache, cached_property, lru_cache
from typing import TYPE_CHECKING, Any

from scipy.optimize import root_scalar

from wembit.core.body_plans.every_plan import PLANS
from wembit.core.body_plans.plan import HIGH, BodyPlan
from wembit.core.body_plans.proportions import (
    Extent,
    at_size,
    extent,
    natural,
    proportioned,
    proportioned_and_extent,
    touching,
)
from wembit.core.errors import BadInput
from wembit.web.figures.editing.following import followed
from wembit.web.figures.editing.scaling import scale_the_rest
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

TRIES, NEAR = 8, 0.0005  # for the size that takes so many grams, and how near to it, as a share
CUBE = 3.0  # grams go about with this power of the size


@dataclass(frozen=True)
class Begun:
    """What a figure is begun from: stored parts, its slots with the colours that they are thought of in and the fibres that
    they get, and how its size is said; the `letters` that it begins with, where it is written, and why those given cannot be;
    the `feet` it stands on, where they are known.
    """

    name: str
    measure: str
    usual_mm: float
    parts: list[dict[str, Any]]
    colours: dict[str, str]
    items: dict[str, Item]
    like: Figure | None = None
    letters: str = ""
    unread: str = ""
    feet: Mapping[str, float] | None = None

    def draft(self, studio: Studio, parts: Sequence[dict[str, Any]], times: float) -> Draft:
        """Those parts as a figure, with all that is told of the one that it is like, at so many times its size."""
        if self.like is None:
            return draft(Figure(studio=studio, name=self.name), parts, list(self.colours))
        old = newest_version(self.like)
        figure = Figure(studio=studio, name=self.name, story=self.like.story, origin=self.like.origin)
        told = {name: getattr(old, name) for name in ("school", "order", "notions", "faces")}
        made = draft(figure, parts, list(self.colours), **told)
        scale_the_rest(made.version, times)
        return made


@dataclass(frozen=True)
class Worked:
    """A draft with its palette; what it takes and how large it is are worked out where they are asked for."""

    draft: Draft
    palette: Palette

    @cached_property
    def plan(self) -> FigurePlan:
        return plan_figure(self.draft.version, self.draft.parts, self.palette)

    @cached_property
    def extent(self) -> Extent:
        stored = [
            {"key": part.key, "count": part.count, "shape": part.shape, "seat": part.seat} for part in self.draft.parts
        ]
        return extent(stored)


def from_plan(studio: Studio, plan: BodyPlan, letters: str | None = None) -> Begun:
    """A body plan in the colours of the shelf; one that is written, of those letters as far as they can be made."""
    unread = ""
    if plan.written and letters is not None:
        try:
            plan = replace(plan, name=letters.strip(), parts=plan.written(letters))
        except BadInput as fault:
            unread = f"{fault.what}."
    parts, feet = (natural(plan), None) if plan.written else deepcopy(_thought_of(plan.key))
    items = studio.cached_until_change(f"body:{plan.key}", lambda: from_the_shelf(studio, plan.colours))
    return Begun(
        plan.name,
        plan.measure,
        plan.usual_mm,
        parts,
        plan.colours,
        items,
        letters=plan.letters,
        unread=unread,
        feet=feet,
    )


@lru_cache(maxsize=len(PLANS))
def _thought_of(plan_key: str) -> tuple[list[dict[str, Any]], dict[str, float]]:
    """The parts of a plan in its own proportions, with its feet, kept since every move of a slider begins from them."""
    parts = natural(PLANS[plan_key])
    return parts, touching(parts)


def from_figure(figure: Figure) -> Begun:
    """The newest version of a figure in its first colourway. Its size is said by its height."""
    version, kept = newest_version(figure), figure_as_json(figure)
    way = colourway_of(version)
    palette = Palette.of(way)
    slots = {slot.pk: slot.name for slot in version.slots.all()}
    items = {slots[pk]: item for pk, item in palette.items.items()}
    return Begun(
        figure.name, HIGH, round(extent(kept["parts"]).high, 1) if kept["parts"] else 0.0, kept["parts"],
        {name: palette.colour(pk) for pk, name in slots.items()}, items, figure,
    )  # fmt: skip


def at_length(studio: Studio, begun: Begun, steps: Mapping[str, int], size_mm: float) -> Worked:
    """In these proportions, so long or high. Raises `BadInput`."""
    parts, found = proportioned_and_extent(begun.parts, steps, begun.feet)
    return _worked(studio, begun, parts, size_mm / said(begun, found))


def at_grams(studio: Studio, begun: Begun, steps: Mapping[str, int], grams: float) -> Worked:
    """In these proportions, as large as takes so many grams in all. Raises `BadInput`."""
    parts = proportioned(begun.parts, steps, begun.feet)

    @cache
    def off(log: float) -> float:
        return math.log(max(_worked(studio, begun, parts, math.exp(log)).plan.all.p50, 1e-6) / grams)

    log = root_scalar(off, x0=0.0, x1=-off(0.0) / CUBE or NEAR, method="secant", xtol=NEAR, maxiter=TRIES).root
    return _worked(studio, begun, parts, math.exp(log))


def said(begun: Begun, found: Extent) -> float:
    """The measure by which the size is said."""
    return found.high if begun.measure == HIGH else found.long


def _worked(studio: Studio, begun: Begun, parts: Sequence[dict[str, Any]], times: float) -> Worked:
    """The parts so many times as large, with the sizes that follow others worked out."""
    made = begun.draft(studio, at_size(parts, times), times)
    seen = colours(studio, [item.pk for item in begun.items.values()])
    palette = made.palette(
        begun.items, begun.colours | {slot: seen[item.pk] for slot, item in begun.items.items() if item.pk in seen}
    )
    followed(made.version, made.parts, lambda: palette)
    return Worked(made, palette)
