"""What a shelf can do for a colour: the nearest wools, and the best blends of what is free."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from wembit.core.colour.conversions import xyz_to_srgb
from wembit.core.colour.difference import SAME, differences, mottle_in_words
from wembit.core.colour.matching import nearest
from wembit.core.colour.search.blending import Blend, blends
from wembit.core.stock.insides import carding
from wembit.web.colour.queries import MOST_FIBRES, MOST_PARTS, Wool, Wools

from .target import Target

NEAREST, WORTH_SHOWING = 3, 10.0  # bags shown; beyond that ΔE00 only the nearest one
WANTED_G = 5.0


@dataclass(frozen=True)
class Single:
    """A wool near the colour that is looked for."""

    wool: Wool
    de00: float
    words: str


@dataclass(frozen=True)
class Dose:
    """One fibre of a recipe: its bag, whole parts and grams."""

    wool: Wool
    parts: int
    grams: float


@dataclass(frozen=True)
class Recipe:
    """A blend that a maker can card: what goes in, what it will look like, how far that is from the target."""

    doses: list[Dose]
    srgb: str
    lab: tuple[float, float, float]
    de00: float
    words: str
    mottle_de00: float

    @property
    def mottle(self) -> str:
        return mottle_in_words(self.mottle_de00)

    @property
    def carding(self) -> tuple[int, float]:
        """Loads of hand carders, and the minutes that they take."""
        return carding(sum(dose.grams for dose in self.doses))

    @property
    def text(self) -> str:
        """The address's way of naming it: bags with their parts."""
        return " ".join(f"{dose.wool.lot_id}*{dose.parts}" for dose in self.doses)


def singles(target: Target, wools: Wools, limit: int = NEAREST) -> list[Single]:
    """The bags nearest to a colour, of other wools than its own."""
    own = target.wool and target.wool.item_id
    rows = [place for place, wool in enumerate(wools.rows) if wool.item_id != own]
    some = wools.only(rows)
    close_by = nearest(target.lab, [wool.lot_id for wool in some.rows], some.labs, limit) if rows else []
    kept = [each for place, each in enumerate(close_by) if not place or each.de00 <= WORTH_SHOWING]
    return [Single(some.rows[each.index], each.de00, each.words) for each in kept]


def recipes(
    target: Target,
    wools: Wools,
    forms: list[str],
    grams: float,
    *,
    fibres: int = MOST_FIBRES,
    parts: int = MOST_PARTS,
    weigh: Callable[[str], float] | None = None,
) -> list[Recipe]:
    """The best blend of each number of fibres, from what is free in forms that go together; one of more fibres only where it
    is nearer by something that is seen, and none where one bag, or a blend of fewer, is the same to the eye. `weigh`: how
    many grams of a blend of that colour are wanted, about `grams`; as far as the bags go.
    """
    own = target.wool and target.wool.item_id
    some = wools.only(
        [n for n, wool in enumerate(wools.rows) if wool.form in forms and wool.free and wool.item_id != own]
    )
    palette, found = some.palette(), list[Any]()
    alone = differences(palette.labs, np.array(target.lab))[palette.grams >= grams]
    if len(alone) and alone.min() <= SAME:
        return []
    for count in range(2, fibres + 1):
        if found and found[-1].de00 <= SAME:
            break
        best = next(
            iter(blends(target.ratios, palette, grams, least_fibres=2, max_fibres=count, parts=parts, limit=1)), None
        )
        if best and (not found or best.de00 < found[-1].de00 - 0.2):
            found.append(recipe_of(best, some, weigh(xyz_to_srgb(best.ratios)) if weigh else grams))
    return found


def recipe_of(blend: Blend, wools: Wools, grams: float) -> Recipe:
    """A blend as bags with their parts and grams."""
    rows = zip(blend.indices, blend.parts, blend.weighed(grams), strict=True)
    doses = sorted(
        (Dose(wools.rows[index], parts, weight) for index, parts, weight in rows), key=lambda dose: -dose.parts
    )
    return Recipe(doses, xyz_to_srgb(blend.ratios), blend.lab, blend.de00, blend.words, blend.mottle)
