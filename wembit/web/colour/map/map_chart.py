"""The colour map laid out: the wools by hue and chroma, or by hue and lightness, as large as what is free of them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from html import escape

import numpy as np
from django.template.loader import render_to_string
from django.utils.safestring import mark_safe

from wembit.core.colour.colour_words import HUED, ORDER
from wembit.core.colour.map_place import RADIUS, place_by_hue, place_by_lightness
from wembit.web.colour.queries import Wools

from .nearest_and_blends import Recipe, Single
from .target import Target

LEAST_CHROMA = 40  # at the rim of the map by hue; more where the shelf has more
HUE, LIGHTNESS = "hue", "lightness"
VIEWS = {HUE: "by hue", LIGHTNESS: "by lightness"}
BARS_WIDE = 800
LEVELS = (20, 40, 60, 80)


@dataclass(frozen=True)
class Mix:
    """The best blend on the map: where its colour lies, and the lines to its fibres."""

    recipe: Recipe
    x: float
    y: float
    ends: list[tuple[float, float]]


@dataclass(frozen=True)
class ColourMap:
    """The map ready for a template: its marks, the colour that is looked for, the best blend."""

    spots: str
    target: tuple[float, float] | None
    joined: list[tuple[float, float]]
    mix: Mix | None
    words: str
    rim: int

    @property
    def rings(self) -> list[tuple[int, float]]:
        """Rings of equal chroma: the chroma and the radius."""
        step = 10 if self.rim <= 50 else 20
        return [(chroma, chroma * RADIUS / self.rim) for chroma in range(step, self.rim + 1, step)]


@dataclass(frozen=True)
class Bar:
    """A colour of a picture in a strip BARS_WIDE wide, as wide as there is of it."""

    x: float
    width: float
    srgb: str


def bars(shares: Sequence[tuple[str, float]]) -> list[Bar]:
    """Colours with their shares, side by side."""
    found, left = [], 0.0
    for srgb, share in shares:
        found.append(Bar(round(left, 1), round(share * BARS_WIDE, 1), srgb))
        left += share * BARS_WIDE
    return found


def place(lab: Sequence[float], view: str, rim: int) -> tuple[float, float]:
    """A colour's place on the map, rounded to what is drawn."""
    x, y = place_by_lightness(lab) if view == LIGHTNESS else place_by_hue(lab, rim)
    return round(x, 1), round(y, 1)


@lru_cache(maxsize=8)
def spots(wools: Wools, view: str, rim: int, rest: str) -> str:
    """The wools on the map as markup, the largest first, so that small ones lie on top. The template says what one looks
    like, with marks for what is its own, which is quicker where there are thousands.
    """
    one = render_to_string("colour/map/_spot.html", {"rest": rest.replace("%", "%%")})
    found = []
    for wool in sorted(wools.rows, key=lambda each: -(each.free or 0)):
        x, y = place(wool.lab, view, rim)
        words = escape(f"{wool.name}, {wool.hue}, {wool.what}")
        radius = 4 + math.sqrt(wool.free or 0) * 1.6
        found.append(one % {"lot": wool.lot_id, "words": words, "srgb": wool.srgb, "x": x, "y": y, "radius": radius})
    return mark_safe("".join(found))


def rim_of(wools: Wools, target: Target | None) -> int:
    """The chroma at the rim of the map: all of the shelf and the target lie within."""
    most = float(np.hypot(wools.labs[:, 1], wools.labs[:, 2]).max()) if wools.rows else 0.0
    return max(LEAST_CHROMA, math.ceil(max(most, math.hypot(*target.lab[1:]) if target else 0) / 10) * 10)


def drawn(
    wools: Wools, view: str, target: Target | None, near: Sequence[Single], recipes: Sequence[Recipe], spots_: str
) -> ColourMap:
    """The map; its spots come as markup, since they are kept."""
    rim = rim_of(wools, target)
    best = min(recipes, key=lambda recipe: recipe.de00, default=None)
    mix = None
    if best:
        mix = Mix(best, *place(best.lab, view, rim), [place(dose.wool.lab, view, rim) for dose in best.doses])
    return ColourMap(
        spots_,
        place(target.lab, view, rim) if target else None,
        [place(neighbour.wool.lab, view, rim) for neighbour in near],
        mix,
        in_words(wools),
        rim,
    )


def in_words(wools: Wools) -> str:
    """What the map shows, for one who does not see it."""
    count = dict.fromkeys(ORDER, 0)
    for wool in wools.rows:
        count[wool.hue] += 1
    said = [f"{n} {hue}" for hue, n in sorted(count.items(), key=lambda each: -each[1]) if n]
    missing = [hue for hue in HUED if not count[hue]]
    words = f"{len(wools.rows)} bags: {', '.join(said)}." if said else "No bag has a colour yet."
    return f"{words} None is {' or '.join(missing)}." if said and missing else words
