"""Which lot serves which need: best fit by due date.

Earlier due dates are served in full before later ones. A need takes one dye lot where one can serve it, an opened bag
before a whole one, and the fullest use of a bag, so that few crumbs are left. What is reserved already stays where it
is, unless an earlier demand would be short while a later one holds something.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from wembit.core.craft.materials import SMALLEST_PIECE_G

CRUMB_G = 2.0  # a rest so small is better not left in a bag
LEAST_G = SMALLEST_PIECE_G / 2  # less than this is neither reserved nor missing


@dataclass(frozen=True)
class FreeLot:
    """What is free of a lot, in its unit."""

    id: object
    fibre: object
    grams: float
    dye_lot: str = ""
    opened: bool = False  # something was taken from it


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
        if left >= LEAST_G:
            short[demand.id] = left
    return Allocation(tuple(reservations), short)


def reallocate(
    lots: Sequence[FreeLot], demands: Sequence[Demand], held: Mapping[tuple[object, object], float]
) -> Allocation:
    """Reserve lots to demands anew, `held` being what is reserved now, by demand and lot; `grams` of a lot are all that is
    in it, of a demand all that is left of it. What is held stays as far as bag and demand reach. Amounts as in `allocate`.
    """
    kept = _kept(lots, demands, held)
    allocated = _filled_up(lots, demands, kept)
    return _filled_up(lots, demands, {}) if kept and _is_unfair(demands, allocated) else allocated


def _kept(
    lots: Sequence[FreeLot], demands: Sequence[Demand], held: Mapping[tuple[object, object], float]
) -> dict[tuple[object, object], float]:
    """What of the reservations can stay, in the order of the demands."""
    room = {lot.id: lot.grams for lot in lots}
    kept = {}
    for demand in demands:
        left = demand.grams
        for lot in lots:
            grams = round(min(held.get((demand.id, lot.id), 0.0), left, room[lot.id]), 3)
            if lot.fibre == demand.fibre and grams >= LEAST_G:
                kept[demand.id, lot.id] = grams
                left = round(left - grams, 3)
                room[lot.id] = round(room[lot.id] - grams, 3)
    return kept


def _filled_up(
    lots: Sequence[FreeLot], demands: Sequence[Demand], kept: Mapping[tuple[object, object], float]
) -> Allocation:
    """What is kept, and of what is left of lots and demands what can be reserved."""
    taken: dict[object, float] = {}
    given: dict[object, float] = {}
    for (demand, lot), grams in kept.items():
        taken[lot] = taken.get(lot, 0.0) + grams
        given[demand] = given.get(demand, 0.0) + grams
    free = [replace(lot, grams=lot.grams - taken.get(lot.id, 0.0)) for lot in lots]
    open_ = [replace(demand, grams=demand.grams - given.get(demand.id, 0.0)) for demand in demands]
    allocated = allocate(free, open_)
    sums = dict(kept)
    for reservation in allocated.reservations:
        sums[reservation.demand, reservation.lot] = round(
            sums.get((reservation.demand, reservation.lot), 0.0) + reservation.grams, 3
        )
    rows = (Reserved(demand, lot, grams) for (demand, lot), grams in sums.items() if grams >= LEAST_G)
    return Allocation(tuple(rows), allocated.short)


def _is_unfair(demands: Sequence[Demand], allocated: Allocation) -> bool:
    """Whether a demand is short while one with a later due date holds something."""
    holding = {reservation.demand for reservation in allocated.reservations}
    short_since = min((demand.due for demand in demands if demand.id in allocated.short), default=None)
    return short_since is not None and any(demand.due > short_since for demand in demands if demand.id in holding)


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
