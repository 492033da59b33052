"""How well something stands in for a wool that is short: one number, small is good, in units of a colour difference.

The weights are assumed: what a maker would accept as much trouble as one ΔE00 of difference that shows.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

HIDDEN = 0.05  # of a difference counts where nothing shows
OTHER_FORM, OTHER_BREED, OTHER_FELTING = 2.0, 0.7, 0.8  # felting: slower or quicker under the needle
MICRON = 0.15  # for each µm of difference in fineness
FLECKED, CARDING = 0.03, 1.0  # for each ΔE00 between the fibres of a blend, and for the work of carding
STILL_SHORT = 8.0  # times the share of the shortage that is left all the same
LAST_OF_IT = 1.5  # where more than half of what is free of it goes
DAY, LATE = 0.25, 2.0  # for each day of waiting, and each day past the start
MONEY = 0.15  # for each unit of the studio's currency
WORTH = 0.15  # the share of the covering wool that a layer under it has to save, to be offered
ALMOST = 0.02  # of a making that may be missing without another one's taking the other wool


def makings_for(short: float, a_making: float, left: int, wanted: int | None = None) -> int:
    """In how many makings another wool stands in: as many as are short, or as `wanted`, of those that are `left`; all of a
    making takes it, so that no figure changes its colour half way. Both amounts in one unit.
    """
    short_of = math.ceil(short / a_making - ALMOST) if a_making else 1
    return min(max(1, wanted or short_of), max(1, left))


@dataclass(frozen=True)
class Trouble:
    """What speaks against an answer: the difference in colour and whether it shows; another form, breed or way of felting,
    fineness in µm; a blend's mottle; the share of what is free that it takes; days to wait and how many of them past the
    start; what it costs; the share of the shortage that it leaves; what speaks against it inside a part (insides.py).
    """

    de00: float = 0.0
    seen: bool = True
    other_form: bool = False
    other_breed: bool = False
    other_felting: bool = False
    micron_um: float = 0.0
    mottle: float | None = None
    share_of_free: float = 0.0
    days: int = 0
    days_late: int = 0
    cost: float = 0.0
    left_short: float = 0.0
    inside: float = 0.0

    @property
    def score(self) -> float:
        carded = 0.0 if self.mottle is None else CARDING + FLECKED * self.mottle
        return (
            self.de00 * (1 if self.seen else HIDDEN)
            + OTHER_FORM * self.other_form
            + OTHER_BREED * self.other_breed
            + OTHER_FELTING * self.other_felting
            + MICRON * abs(self.micron_um)
            + carded
            + LAST_OF_IT * (self.share_of_free > 0.5)
            + DAY * self.days
            + LATE * self.days_late
            + MONEY * self.cost
            + STILL_SHORT * self.left_short
            + self.inside
        )
