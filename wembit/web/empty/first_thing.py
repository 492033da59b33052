"""The one thing that comes first in a place of a studio that is still empty."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web.figures.models import Figure
from wembit.web.plan.models import Project
from wembit.web.stash.models import Lot

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


@dataclass(frozen=True)
class Thing:
    """What is done, on which page, and why; `is_done` once the studio has one."""

    words: str
    why: str
    url_name: str
    is_done: Callable[[Studio], bool]


BAG = Thing(
    "Put the first bag on the shelf",
    "Begin with what lies in the drawers: its name, its colour, its weight, one line a bag.",
    "stash:stocktake",
    lambda studio: Lot.objects.of(studio).exists(),
)
COLOUR = Thing(
    "Tell a bag its colour",
    "No bag on the shelf has a colour yet: touch one, and pick its colour by eye or measure it.",
    "stash:home",
    lambda studio: False,
)
FIGURE = Thing(
    "Begin a figure",
    "Touch what it is most like: it stands there with its grams, and everything can be changed.",
    "figures:new",
    lambda studio: Figure.objects.of(studio).exists(),
)
PROJECT = Thing(
    "Plan something",
    "Say what, how many, and for when: what it needs is put aside, and what is short is told.",
    "plan:new",
    lambda studio: Project.objects.of(studio).exists(),
)
PLACES = {
    "today": (BAG, FIGURE, PROJECT),
    "figures": (FIGURE,),
    "plan": (FIGURE, PROJECT),
    "shelf": (BAG,),
    "walk": (BAG,),
    "colour": (BAG, COLOUR),
    "bench": (FIGURE, PROJECT),
    "restock": (FIGURE, PROJECT),
}


def first_thing(studio: Studio, place: str) -> Thing:
    """What of the place's things the studio has not done yet, else the last of them."""
    things = PLACES[place]
    return next((thing for thing in things if not thing.is_done(studio)), things[-1])
