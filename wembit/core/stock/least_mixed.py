"""Which lots of one fibre serve which demands: the fewest visible demands of mixed dye lots; then the fewest unopened lots,
the fewest lots, the fewest crumbs. Exact for a few lots and demands.

What each demand gets is settled before: earlier ones all they ask for. A dye lot can hold a set of demands for itself if it
holds their sum, whatever its lots are, so the first aim is an assignment of demands to dye lots (a knapsack of several bins,
by looking at every one). Of the sets of lots that leave each dye lot enough, those with the fewest unopened and the fewest
lots are taken; and of those, each lot used up, left with a crumb or left with more, which has the fewest crumbs. Amounts are
whole numbers of a millionth of a gram, so that nothing hangs on rounding.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations, product

PARTS = 1_000_000  # of a gram (or of the item's unit)
CRUMB = 2 * PARTS  # a rest below that is one
LOTS, DEMANDS = 6, 5  # up to which it is exact

Loads = tuple[int, ...]


@dataclass(frozen=True)
class Bag:
    """What is free of a lot, its dye lot by number, and whether something was taken from it."""

    holds: int
    dye: int
    opened: bool


@dataclass(frozen=True)
class Wish:
    """What a demand gets, and whether it is seen whether that is mixed."""

    gets: int
    visible: bool


Grid = list[list[int]]  # by demand and lot


def least_mixed(bags: Sequence[Bag], wishes: Sequence[Wish]) -> Grid:
    """What each wish gets from each bag. The wishes ask for no more than the bags hold."""
    dyes = 1 + max((bag.dye for bag in bags), default=-1)
    assignments = _assignments(bags, wishes, dyes)
    loads, used, states = _fewest(bags, sum(wish.gets for wish in wishes), assignments)
    given = _given(bags, used, states, loads, sum(wish.gets for wish in wishes))
    return _shared_out(bags, wishes, assignments[loads], given)


def mixed(bags: Sequence[Bag], wishes: Sequence[Wish], grid: Grid) -> int:
    """How many visible wishes get more than one dye lot."""
    return sum(
        len({bag.dye for bag, amount in zip(bags, row, strict=True) if amount}) > 1
        for wish, row in zip(wishes, grid, strict=True)
        if wish.visible
    )


def judged(bags: Sequence[Bag], wishes: Sequence[Wish], grid: Grid) -> tuple[int, int, int, int]:
    """Visible wishes of mixed dye lots, unopened bags used, bags used, crumbs left: the less the better, in this order."""
    taken = [sum(row[n] for row in grid) for n in range(len(bags))]
    rests = [bag.holds - amount for bag, amount in zip(bags, taken, strict=True)]
    return (
        mixed(bags, wishes, grid),
        sum(1 for bag, amount in zip(bags, taken, strict=True) if amount and not bag.opened),
        sum(1 for amount in taken if amount),
        sum(1 for rest in rests if 0 < rest < CRUMB),
    )


def _assignments(bags: Sequence[Bag], wishes: Sequence[Wish], dyes: int) -> dict[Loads, list[int | None]]:
    """The dye lot of each wish (None: any), of as many visible ones as can have one, by what the dye lots hold for them."""
    room = [sum(bag.holds for bag in bags if bag.dye == dye) for dye in range(dyes)]
    seen = [n for n, wish in enumerate(wishes) if wish.visible and wish.gets]
    found: dict[tuple[int, Loads], list[int | None]] = {(0, (0,) * dyes): [None] * len(wishes)}
    for n in seen:
        following: dict[tuple[int, Loads], list[int | None]] = {}
        for (count, loads), chosen in found.items():
            following.setdefault((count + 1, loads), chosen)
            for dye in range(dyes):
                if loads[dye] + wishes[n].gets <= room[dye]:
                    more = (*loads[:dye], loads[dye] + wishes[n].gets, *loads[dye + 1 :])
                    following.setdefault((count, more), [*chosen[:n], dye, *chosen[n + 1 :]])
        found = following
    least = min(count for count, _ in found)
    return {loads: chosen for (count, loads), chosen in found.items() if count == least}


def _fewest(
    bags: Sequence[Bag], whole: int, assignments: dict[Loads, list[int | None]]
) -> tuple[Loads, tuple[int, ...], tuple[int, ...]]:
    """The loads, the bags used and how each is left (see `_ends`) with the fewest unopened bags, bags and crumbs; of equals
    those of the smallest bags.
    """
    best: tuple[tuple[int, int, int, int], Loads, tuple[int, ...], tuple[int, ...]] | None = None
    for used in _sets(bags):
        cost = (sum(not bags[n].opened for n in used), len(used))
        if best and cost > best[0][:2]:
            break
        held = {
            dye: sum(bags[n].holds for n in used if bags[n].dye == dye) for dye in range(len(next(iter(assignments))))
        }
        if sum(held.values()) < whole:
            continue
        left = sum(1 for n, bag in enumerate(bags) if n not in used and 0 < bag.holds < CRUMB)
        for loads in assignments:
            if any(held[dye] < load for dye, load in enumerate(loads)):
                continue
            crumbs, states = _fewest_crumbs(bags, used, loads, whole)
            key = (*cost, crumbs + left, sum(held.values()))
            if best is None or key < best[0]:
                best = (key, loads, used, states)
    if best is None:
        raise ValueError("the bags hold less than what is shared out")
    return best[1:]


def _sets(bags: Sequence[Bag]) -> list[tuple[int, ...]]:
    """Every set of bags, those with the fewest unopened and the fewest first."""
    every = [some for count in range(len(bags) + 1) for some in combinations(range(len(bags)), count)]
    return sorted(every, key=lambda some: (sum(not bags[n].opened for n in some), len(some)))


FULL, MORE, CRUMBS = 0, 1, 2  # how a bag is left: empty, with more than a crumb, with a crumb


def _ends(bag: Bag, state: int) -> tuple[int, int] | None:
    """The least and most that is taken of a bag that is left so; None where it cannot be."""
    if state == FULL:
        return bag.holds, bag.holds
    if state == MORE:
        return (1, bag.holds - CRUMB) if bag.holds > CRUMB else None
    return (max(1, bag.holds - CRUMB + 1), bag.holds - 1) if bag.holds > 1 else None


def _fewest_crumbs(bags: Sequence[Bag], used: Sequence[int], loads: Loads, whole: int) -> tuple[int, tuple[int, ...]]:
    """How many crumbs are left at least, and how each of the used bags is left then."""
    for states in _ways_to_leave(len(used)):
        if _can(bags, used, states, loads, whole):
            return states.count(CRUMBS), states
    raise ValueError("the bags hold less than what is shared out")


@lru_cache(maxsize=LOTS + 1)
def _ways_to_leave(count: int) -> list[tuple[int, ...]]:
    """Every way in which so many bags can be left, those with the fewest crumbs first."""
    return sorted(product((FULL, MORE, CRUMBS), repeat=count), key=lambda states: states.count(CRUMBS))


def _can(bags: Sequence[Bag], used: Sequence[int], states: Sequence[int], loads: Loads, whole: int) -> bool:
    low, high = [0] * len(loads), [0] * len(loads)
    for n, state in zip(used, states, strict=True):
        ends = _ends(bags[n], state)
        if ends is None:
            return False
        low[bags[n].dye] += ends[0]
        high[bags[n].dye] += ends[1]
    if any(most < load for most, load in zip(high, loads, strict=True)):
        return False
    return sum(map(max, low, loads)) <= whole <= sum(high)


def _given(bags: Sequence[Bag], used: Sequence[int], states: Sequence[int], loads: Loads, whole: int) -> list[int]:
    """What is taken of each bag so that it is left as it is to be, and each dye lot gives its load."""
    given = [0] * len(bags)
    room = dict.fromkeys(range(len(bags)), 0)
    for n, state in zip(used, states, strict=True):
        low, high = _ends(bags[n], state) or (0, 0)
        given[n], room[n] = low, high - low

    def raise_by(amount: int, some: Iterator[int]) -> None:
        for n in some:
            more = min(amount, room[n])
            given[n], room[n], amount = given[n] + more, room[n] - more, amount - more

    for dye, load in enumerate(loads):
        mine = [n for n in used if bags[n].dye == dye]
        raise_by(max(0, load - sum(given[n] for n in mine)), iter(mine))
    raise_by(whole - sum(given), iter(used))
    return given


def _shared_out(
    bags: Sequence[Bag], wishes: Sequence[Wish], chosen: Sequence[int | None], given: Sequence[int]
) -> Grid:
    """Those with a dye lot of their own take from it first, the others from what is left."""
    left = list(given)
    grid = [[0] * len(bags) for _ in wishes]
    order = sorted(range(len(wishes)), key=lambda n: chosen[n] is None)
    for n in order:
        missing = wishes[n].gets
        for place, bag in enumerate(bags):
            if chosen[n] is None or bag.dye == chosen[n]:
                taken = min(missing, left[place])
                grid[n][place] += taken
                left[place] -= taken
                missing -= taken
    return grid
