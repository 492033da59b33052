"""Which wool of the shelf goes to which slot of a figure that is begun."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TYPE_CHECKING

import numpy as np

from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import differences
from wembit.core.craft.materials import FORMS
from wembit.web.colour.queries import Wool, wools
from wembit.web.stash.models import Item

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

CORE, NEVER = "core", "not at all"
LIKE_ENOUGH = 18.0  # ΔE00: farther off another wool is chosen by the maker
COARSE_UM = 27.0  # from here on wool is mostly laid inside; common practice


def from_the_shelf(studio: Studio, colours: Mapping[str, str]) -> dict[str, Item]:
    """For each slot, thought of in a colour, the fibre that is there and nearest to it; for the core coarse wool, whatever
    its colour. Slots that nothing comes near stay without.
    """
    rows = [wool for wool in wools(studio).rows if FORMS[wool.form].blends and wool.free != 0 and wool.felting != NEVER]
    chosen: dict[str, str] = {}
    if rows:
        labs = np.array([wool.lab for wool in rows])
        for slot, srgb in colours.items():
            off = differences(labs, np.array(lab(srgb)))
            if slot == CORE:
                chosen[slot] = min(rows, key=_for_cores).item_id
            elif off.min() <= LIKE_ENOUGH:
                chosen[slot] = rows[int(off.argmin())].item_id
    items = {str(item.pk): item for item in Item.objects.of(studio).filter(pk__in=set(chosen.values()))}
    return {slot: items[pk] for slot, pk in chosen.items()}


def _for_cores(wool: Wool) -> tuple:
    """First what is called so, then coarse wool, then what there is most of."""
    return CORE not in wool.name.lower(), wool.micron_um < COARSE_UM, -(wool.free or 0.0)
