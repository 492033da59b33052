"""Which lot serves which need: best fit by due date.

Earlier due dates are served in full before later ones. A need takes one dye lot where one can serve it, an opened bag
before a whole one, and the fullest use of a bag, so that few crumbs are left.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from wembit.core.craft.materials import SMALLEST_PIECE_G

CRUMB_G = 2.0


@dataclass(frozen=True)
class FreeLot:
    """What is free of a lot, in its unit."""

    id: object
    fibre: object
    grams: float
    dye_lot: str = ""
    opened: bool = False


@dataclass(frozen=True)
class Demand:
    """What is asked of a fibre by a day."""

    id: object
    due: dt.date
    fibre: object
    grams: float
    visible: bool = True


@dataclass(frozen=True)
class Reserved:
    """So much of a lot for a demand."""

    demand: object
    lot: object
    grams: float


@dataclass(frozen=True)
class Allocation:
    """What was reserved, and what no lot could give."""

    reservations: tuple[Reserved, ...]
    short: dict[object, float]  # demand → grams that no lot could give


def allocate(lots: Sequence[FreeLot], demands: Sequence[Demand]) -> Allocation:
    """Reserve lots (grams free) to demands by due date, then in list order. Amounts in g, or the item's unit."""
    free = {lot.id: lot.grams for lot in lots}
    reservations, short = [], {}
    for demand in sorted(demands, key=lambda each: each.due):
        mine = [lot for lot in lots if lot.fibre == demand.fibre and free[lot.id] > 0]
        left = demand.grams
        for lot in _order(mine, free, demand):
            if left <= 0:
                break
            taken = round(min(left, free[lot.id]), 3)
            free[lot.id] = round(free[lot.id] - taken, 3)
            left = round(left - taken, 3)
            reservations.append(Reserved(demand.id, lot.id, taken))
        if left >= SMALLEST_PIECE_G / 2:
            short[demand.id] = left
    return Allocation(tuple(reservations), short)


def _order(lots: list[FreeLot], free: dict, demand: Demand) -> list[FreeLot]:
    """The order in which the lots of one fibre are used for one demand."""
    groups: dict[object, list[FreeLot]] = {}
    for lot in lots:
        groups.setdefault(lot.dye_lot or lot.id, []).append(lot)
    enough = [group for group in groups.values() if sum(free[lot.id] for lot in group) >= demand.grams]
    if enough:
        group = min(enough, key=lambda g: (len(g) > 1, *_cost(g, free, demand.grams)))
        return sorted(group, key=lambda lot: (free[lot.id] < demand.grams, not lot.opened, free[lot.id]))
    return sorted(lots, key=lambda lot: (not lot.opened, -free[lot.id]))


def _cost(group: list[FreeLot], free: dict, grams: float) -> tuple:
    rest = sum(free[lot.id] for lot in group) - grams
    return 0 < rest < CRUMB_G, not any(lot.opened for lot in group), rest
