"""Which wool of the shelf goes to which slot of a figure that is begun."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TYPE_CHECKING

import numpy as np

from wembit.core.body_plans.plan import LIKE_ENOUGH
from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import differences
from wembit.core.craft.materials import FORMS
from wembit.core.stock.insides import NEVER, inside_trouble
from wembit.web.colour.queries import Wool, wools
from wembit.web.stash.queries import items_of

if TYPE_CHECKING:
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Studio

CORE = "core"


def from_the_shelf(studio: Studio, colours: Mapping[str, str]) -> dict[str, Item]:
    """For each slot, thought of in a colour, the fibre that is there and nearest to it; for the core what is best inside, of
    any colour. Slots that nothing comes near stay without.
    """
    rows = [wool for wool in wools(studio).rows if FORMS[wool.form].blends and wool.free != 0 and wool.felting != NEVER]
    chosen: dict[str, str] = {}
    if rows:
        labs = np.array([wool.lab for wool in rows])
        for slot, srgb in colours.items():
            off = differences(labs, np.array(lab(srgb)))
            if slot == CORE:
                inside = [wool for wool in rows if _inside(wool) is not None]
                chosen |= (
                    {slot: min(inside, key=lambda wool: (_inside(wool), -(wool.free or 0.0))).item_id} if inside else {}
                )
            elif off.min() <= LIKE_ENOUGH:
                chosen[slot] = rows[int(off.argmin())].item_id
    items = items_of(studio, chosen.values())
    return {slot: items[pk] for slot, pk in chosen.items()}


def _inside(wool: Wool) -> float | None:
    return inside_trouble(wool.form, wool.micron_um, wool.felting)
