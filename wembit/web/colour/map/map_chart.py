"""The colour map laid out: the wools by hue and chroma with a ladder of the muted ones, or by hue and lightness; as large as
what is free of them, and none under another.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from html import escape

import numpy as np
from django.template.loader import render_to_string
from django.utils.safestring import mark_safe

from wembit.core.colour.colour_words import HUED, ORDER, hue_names
from wembit.core.colour.map_place import RADIUS, is_muted, place_by_hue, place_by_lightness, place_on_ladder
from wembit.core.colour.map_spread import spread
from wembit.web.colour.queries import Wools

from .nearest_and_blends import Recipe, Single
from .target import Target

LEAST_CHROMA = 40  # at the rim of the map by hue; more where the shelf has more
HUE, LIGHTNESS = "hue", "lightness"
VIEWS = {HUE: "by hue", LIGHTNESS: "by lightness"}
BARS_WIDE = 800
LEVELS = (20, 40, 60, 80)
DISC, LADDER = "disc", "ladder"  # the boards of the map; by lightness there is but one
LEAST_R, MANY = 15.0, 80  # of a mark, where there are no more than so many
LADDER_WIDE, LADDER_READY = 88.0, (1.0, 0.35)  # half of it; marks go sideways more readily than up or down
EDGE = (RADIUS + 40, RADIUS)  # marks lie within
Place = tuple[str, float, float]


@dataclass(frozen=True)
class Laid:
    """The marks of the wools as markup, by board, and where each wool's mark lies, by its lot."""

    marks: dict[str, str]
    places: dict[str, Place]


@dataclass(frozen=True)
class Mix:
    """The best blend on the map: its colour's place."""

    recipe: Recipe
    x: float
    y: float


@dataclass(frozen=True)
class Board:
    """One board of the map ready for a template: its marks, the colour that is looked for and the best blend where they lie
    on it, and the lines, dotted to the nearest, full to the blend's fibres, as (x, y, x, y).
    """

    marks: str
    target: tuple[float, float] | None
    near: list[tuple[float, ...]]
    mix: Mix | None
    fibres: list[tuple[float, ...]]


@dataclass(frozen=True)
class ColourMap:
    """The map ready for a template; by lightness it has no ladder."""

    disc: Board
    ladder: Board | None
    mix: Recipe | None
    words: str
    rim: int

    @property
    def rings(self) -> list[float]:
        """Radii of rings of equal chroma, from the innermost to the rim."""
        step = 10 if self.rim <= 50 else 20
        return [place_by_hue((0, chroma, 0), self.rim)[0] for chroma in (*range(20, self.rim, step), self.rim)]


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


def place(lab: Sequence[float], view: str, rim: int) -> Place:
    """A colour's own place on the map, rounded to what is drawn."""
    if view == LIGHTNESS:
        (x, y), board = place_by_lightness(lab), DISC
    else:
        board = LADDER if is_muted(lab) else DISC
        x, y = place_on_ladder(lab) if board == LADDER else place_by_hue(lab, rim)
    return board, round(x, 1), round(y, 1)


@lru_cache(maxsize=8)
def laid_out(wools: Wools, view: str, rim: int, rest: str) -> Laid:
    """The wools on the map, the largest first, so that small ones lie on top. The template says what one looks like, with
    marks for what is its own, which is quicker where there are thousands.
    """
    one = render_to_string("colour/map/_spot.html", {"rest": rest.replace("%", "%%")})
    marks: dict[str, str] = {}
    places: dict[str, Place] = {}
    rows = sorted(wools.rows, key=lambda each: -(each.free or 0))
    own = [place(wool.lab, view, rim) for wool in rows]
    for board in (DISC, LADDER):
        here = [n for n, spot in enumerate(own) if spot[0] == board]
        least = LEAST_R * min(1.0, math.sqrt(MANY / max(len(rows), 1)))
        radii = np.array([max(least, 4 + math.sqrt(rows[n].free or 0) * 1.6) for n in here])
        true = np.array([own[n][1:] for n in here]).reshape(-1, 2)
        if board == LADDER:
            drawn_at = spread(true, radii, stretch=LADDER_READY, within=(LADDER_WIDE, RADIUS))
        else:
            drawn_at = spread(true, radii, within=EDGE)
        found = []
        for n, radius, (x0, y0), (x, y) in zip(here, radii, true, drawn_at.round(1), strict=True):
            wool = rows[n]
            way = f"M{x0} {y0}L{x} {y}" if math.hypot(x - x0, y - y0) > radius else ""
            words = escape(f"{wool.name}, {wool.hue}, {wool.what}")
            found.append(one % {"lot": wool.lot_id, "words": words, "srgb": wool.srgb, "x": x, "y": y, "radius": radius,
                                "way": way, "none": " none-free" if wool.free == 0 else ""})  # fmt: skip
            places[wool.lot_id] = (board, float(x), float(y))
        marks[board] = mark_safe("".join(found))
    return Laid(marks, places)


def rim_names() -> list[tuple[str, float, float, str]]:
    """What colours at the rim are called, where, and by which end the word stands there."""
    found = []
    for word, degrees in hue_names().items():
        turn = math.radians(degrees)
        x, y = math.cos(turn) * (RADIUS + 10), -math.sin(turn) * (RADIUS + 10)
        anchor = "middle" if abs(x) < RADIUS / 3 else "start" if x > 0 else "end"
        found.append((word, round(x, 1), round(y + (8 if y > 0 else 0), 1), anchor))
    return found


def rim_of(wools: Wools, target: Target | None) -> int:
    """The chroma at the rim of the map: all of the shelf and the target lie within."""
    most = float(np.hypot(wools.labs[:, 1], wools.labs[:, 2]).max()) if wools.rows else 0.0
    return max(LEAST_CHROMA, math.ceil(max(most, math.hypot(*target.lab[1:]) if target else 0) / 10) * 10)


def drawn(
    wools: Wools, view: str, target: Target | None, near: Sequence[Single], recipes: Sequence[Recipe], laid: Laid
) -> ColourMap:
    """The map; its marks come laid out, since they are kept."""
    rim = rim_of(wools, target)
    best = min(recipes, key=lambda recipe: recipe.de00, default=None)
    boards = {}
    for board in (DISC, LADDER):
        asked = _on(board, place(target.lab, view, rim)) if target else None
        blend = _on(board, place(best.lab, view, rim)) if best else None
        ends = [dose.wool.lot_id for dose in best.doses] if best else []
        boards[board] = Board(
            laid.marks[board],
            asked,
            _lines(board, asked, [each.wool.lot_id for each in near], laid),
            Mix(best, *blend) if best and blend else None,
            _lines(board, blend, ends, laid),
        )
    ladder = boards[LADDER] if view == HUE else None
    return ColourMap(boards[DISC], ladder, best, in_words(wools), rim)


def _on(board: str, spot: Place) -> tuple[float, float] | None:
    """The place where it is on that board."""
    return spot[1:] if spot[0] == board else None


def _lines(board: str, begin: tuple[float, float] | None, lots: Sequence[str], laid: Laid) -> list[tuple[float, ...]]:
    """From there to the marks of these lots that lie on the same board."""
    ends = [laid.places[lot] for lot in lots if begin and lot in laid.places]
    return [(*begin, *end[1:]) for end in ends if begin and end[0] == board]


def in_words(wools: Wools) -> str:
    """What the map shows, for one who does not see it."""
    count = dict.fromkeys(ORDER, 0)
    for wool in wools.rows:
        count[wool.hue] += 1
    said = [f"{n} {hue}" for hue, n in sorted(count.items(), key=lambda each: -each[1]) if n]
    missing = [hue for hue in HUED if not count[hue]]
    words = f"{len(wools.rows)} bags: {', '.join(said)}." if said else "No bag has a colour yet."
    return f"{words} None is {' or '.join(missing)}." if said and missing else words
