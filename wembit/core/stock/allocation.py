"""Which lot serves which need.

Earlier due dates are served in full before later ones. Then as few visible needs as can be mix dye lots, as few unopened bags
and as few bags as can be are used, and as few crumbs as can be are left: exactly so where a fibre has a few lots and demands
(least_mixed.py), else by best fit. What is reserved already stays where it is, unless an earlier demand would be short while a
later one holds something.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from wembit.core.craft.materials import SMALLEST_PIECE_G

from .best_fit import best_fit
from .least_mixed import DEMANDS, LOTS, PARTS, Bag, Grid, Wish, least_mixed

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
    """What is asked of a fibre by a day; what has a lower `priority` is served first, whatever is due when."""

    id: object
    due: dt.date
    fibre: object
    grams: float
    visible: bool = True
    priority: int = 0

    @property
    def turn(self) -> tuple[int, dt.date]:
        """What has an earlier one is served before it."""
        return self.priority, self.due


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


def allocate(lots: Sequence[FreeLot], demands: Sequence[Demand], least: float = LEAST_G) -> Allocation:
    """Reserve lots (grams free) to demands by priority, due date, then list order. Amounts in g, or the item's unit; what is
    missing of a demand is told from `least` on.
    """
    mine: dict[object, tuple[list[FreeLot], list[Demand]]] = {}
    for lot in lots:
        mine.setdefault(lot.fibre, ([], []))[0].append(lot)
    for demand in sorted(demands, key=lambda each: each.turn):
        mine.setdefault(demand.fibre, ([], []))[1].append(demand)
    reservations: dict[object, list[Reserved]] = {}
    short = {}
    for here, asked in mine.values():
        wishes = _wishes(here, asked)
        for demand, wish, row in zip(asked, wishes, _shared(here, wishes), strict=True):
            reservations[demand.id] = [
                Reserved(demand.id, lot.id, amount / PARTS) for lot, amount in zip(here, row, strict=True) if amount
            ]
            missing = (_parts(demand.grams) - wish.gets) / PARTS
            if missing >= least:
                short[demand.id] = missing
    order = [demand.id for demand in sorted(demands, key=lambda each: each.turn)]
    return Allocation(tuple(each for key in order for each in reservations[key]), short)


def _parts(grams: float) -> int:
    return max(0, round(grams * PARTS))


def _wishes(lots: Sequence[FreeLot], demands: Sequence[Demand]) -> list[Wish]:
    """What each demand gets: the earlier ones all that they ask for."""
    there, wishes = sum(_parts(lot.grams) for lot in lots), []
    for demand in demands:
        gets = min(_parts(demand.grams), there)
        there -= gets
        wishes.append(Wish(gets, demand.visible))
    return wishes


def _shared(lots: Sequence[FreeLot], wishes: Sequence[Wish]) -> Grid:
    dyes: dict[object, int] = {}
    keys = [("dye", lot.dye_lot) if lot.dye_lot else ("lot", lot.id) for lot in lots]
    bags = [
        Bag(_parts(lot.grams), dyes.setdefault(key, len(dyes)), lot.opened) for lot, key in zip(lots, keys, strict=True)
    ]
    few = len(bags) <= LOTS and sum(wish.gets > 0 for wish in wishes) <= DEMANDS
    return least_mixed(bags, wishes) if few else best_fit(bags, wishes)


def reallocate(
    lots: Sequence[FreeLot],
    demands: Sequence[Demand],
    held: Mapping[tuple[object, object], float],
    pinned: Mapping[tuple[object, object], float] | None = None,
) -> Allocation:
    """Reserve lots to demands anew, `held` being what is reserved now, by demand and lot; `grams` of a lot are all that is
    in it, of a demand all that is left of it. What is held stays as far as bag and demand reach. What is `pinned` comes before
    all else, whatever is due when. Amounts as in `allocate`.
    """
    demands = sorted(demands, key=lambda each: each.turn)
    if pinned:
        return _beside_pins(lots, demands, held, _kept(lots, demands, pinned))
    kept = _kept(lots, demands, held)
    allocated = _filled_up(lots, demands, kept)
    return _filled_up(lots, demands, {}) if kept and _is_unfair(demands, allocated) else allocated


def _beside_pins(
    lots: Sequence[FreeLot],
    demands: Sequence[Demand],
    held: Mapping[tuple[object, object], float],
    fixed: Mapping[tuple[object, object], float],
) -> Allocation:
    """What is fixed, and the rest of lots and demands as they would be without it."""
    of_lot: dict[object, float] = {}
    of_demand: dict[object, float] = {}
    for (demand, lot), grams in fixed.items():
        of_lot[lot] = of_lot.get(lot, 0.0) + grams
        of_demand[demand] = of_demand.get(demand, 0.0) + grams
    rest = reallocate(
        [replace(lot, grams=lot.grams - of_lot.get(lot.id, 0.0)) for lot in lots],
        [replace(demand, grams=demand.grams - of_demand.get(demand.id, 0.0)) for demand in demands],
        {key: grams - fixed.get(key, 0.0) for key, grams in held.items()},
    )
    sums = dict(fixed)
    for row in rest.reservations:
        sums[row.demand, row.lot] = sums.get((row.demand, row.lot), 0.0) + row.grams
    rows = tuple(Reserved(demand, lot, grams) for (demand, lot), grams in sums.items())
    return Allocation(rows, rest.short)


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
    """Whether a demand is short while one whose turn comes later holds something."""
    holding = {reservation.demand for reservation in allocated.reservations}
    short_since = min((demand.turn for demand in demands if demand.id in allocated.short), default=None)
    return short_since is not None and any(demand.turn > short_since for demand in demands if demand.id in holding)
