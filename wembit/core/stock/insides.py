"""What another wool is worth inside a part, where nobody sees it: scrap first, then core wool, then coarse cheap wool.

Common practice: locks, specks, silk and fine tops are never laid inside; what felts slowly makes a soft core.
"""

from __future__ import annotations

import math

FORMS_INSIDE = {"scrap": 0.0, "core": 0.5, "fleece": 1.5, "batt": 1.5, "sliver": 2.0, "tops": 3.0}
COARSE_UM, FINE_UM = 27.0, 23.0  # coarser is cheap; finer tops are too good
COARSE, SLOW = -0.25, 1.5
NEVER, SLOWLY = "not at all", "slowly"
MORE_COVER = 0.8  # for each gram that a cover over it takes more
LOAD_G, MINUTES_A_LOAD = 6.5, 5.0  # hand carders hold 5–8 g, and four passes take so long; common practice


def inside_trouble(form: str, micron_um: float, felting: str) -> float | None:
    """What speaks against a wool inside, in units of a colour difference that shows; None for what is never laid there."""
    if form not in FORMS_INSIDE or felting == NEVER or (form == "tops" and micron_um < FINE_UM):
        return None
    return max(0.0, FORMS_INSIDE[form] + COARSE * (micron_um >= COARSE_UM) + SLOW * (felting == SLOWLY))


def carding(grams: float) -> tuple[int, float]:
    """Loads of hand carders for so many grams, and the minutes that they take."""
    loads = max(1, math.ceil(grams / LOAD_G - 1e-9))
    return loads, loads * MINUTES_A_LOAD
