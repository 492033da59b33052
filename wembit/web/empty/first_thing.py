"""The one thing that comes first in a place of a studio that is still empty."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web.figures.queries import figure_count
from wembit.web.plan.queries import has_projects
from wembit.web.stash.queries import has_bags

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
    has_bags,
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
    lambda studio: figure_count(studio) > 0,
)
PROJECT = Thing(
    "Plan something",
    "Say what, how many, and for when: what it needs is put aside, and what is short is told.",
    "plan:new",
    has_projects,
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
