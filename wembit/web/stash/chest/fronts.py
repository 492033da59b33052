"""The fronts of the drawers, each with its wools as bands, as broad as they are heavy."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.web.stash.models import FIBRE, Lot
from wembit.web.stash.queries import lots_on_shelf
from wembit.web.stash.swatch import UNTOLD

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

WIDTH, LEAST, GAP = 132.0, 5.0, 1.5  # px: of all bands, of the smallest, between two
LIGHT_G = 10.0  # a bag not weighed yet, or a box of eyes, is as broad as so much wool


@dataclass(frozen=True)
class Band:
    """A bag in its colour; of what is not weighed yet only the outline."""

    x: float
    width: float
    colour: str
    is_weighed: bool


@dataclass(frozen=True)
class Front:
    """A drawer (None: what lies in none) from in front: what is in it, and what it is wanted for: `words` beneath its name,
    `href` where a touch leads, `is_lit` when something is to be taken from it, `is_done` when it needs nothing more.
    """

    drawer_id: UUID | None
    name: str
    closed_until: dt.date | None
    count: int
    bands: list[Band]
    words: tuple[str, ...] = ()
    href: str = ""
    is_lit: bool = False
    is_done: bool = False

    @property
    def bags(self) -> str:
        return f"{self.count} bag{'s' if self.count != 1 else ''}"


def fronts(studio: Studio) -> list[Front]:
    """All drawers in which something lies, by name; what lies in none last."""
    by_drawer: dict[UUID | None, list[Lot]] = {}
    for lot in lots_on_shelf(studio):
        by_drawer.setdefault(lot.drawer_id, []).append(lot)
    found = [_front(inside) for inside in by_drawer.values()]
    return sorted(found, key=lambda front: (front.drawer_id is None, front.name))


def _front(lots: list[Lot]) -> Front:
    drawer = lots[0].drawer
    return Front(
        drawer.pk if drawer else None,
        drawer.name if drawer else "",
        drawer.closed_until if drawer else None,
        len(lots),
        bands(lots),
    )


def bands(lots: Iterable[Lot]) -> list[Band]:
    """The bags side by side over the whole front; the narrower, the more there are."""
    inside = list(lots)
    least, gap = min(LEAST, WIDTH / (2 * len(inside))), min(GAP, WIDTH / (4 * len(inside)))
    grams = [float(lot.on_hand) if lot.weighed and lot.item.kind == FIBRE else LIGHT_G for lot in inside]
    room = WIDTH - gap * (len(inside) - 1) - least * len(inside)
    whole, x, found = sum(grams) or 1.0, 0.0, []
    for lot, weight in zip(inside, grams, strict=True):
        width = least + room * weight / whole
        found.append(Band(round(x, 2), round(width, 2), lot.srgb or UNTOLD, lot.weighed))
        x += width + gap
    return found
