"""Which lots of one fibre serve which demands where there are many: each demand the smallest dye lot that holds it all.

Best fit is the heuristic of bin packing (D. S. Johnson et al., Worst-case performance bounds for simple one-dimensional
packing algorithms, SIAM J. Computing 3 (1974) 299–325). It is tried by due date and with the visible demands first, smallest
first, which leaves most of them in one dye lot; the better of both is taken.
"""

from __future__ import annotations

from bisect import bisect_left, insort
from collections.abc import Iterable, Sequence

from .least_mixed import Bag, Grid, Wish, judged


def best_fit(bags: Sequence[Bag], wishes: Sequence[Wish]) -> Grid:
    """What each wish gets from each bag. The wishes ask for no more than the bags hold."""
    by_date = range(len(wishes))
    visible_first = sorted(by_date, key=lambda n: (not wishes[n].visible, wishes[n].gets))
    tried = [_placed(bags, wishes, order, small) for order in (by_date, visible_first) for small in (False, True)]
    return min(tried, key=lambda grid: judged(bags, wishes, grid))


def _placed(bags: Sequence[Bag], wishes: Sequence[Wish], order: Iterable[int], small: bool) -> Grid:
    """The wishes in that order; what no dye lot holds alone, and what is not seen, comes of the smallest or of the largest dye
    lots.
    """
    left = [bag.holds for bag in bags]
    of_dye: dict[int, list[int]] = {}
    for n in sorted(range(len(bags)), key=lambda n: (not bags[n].opened, bags[n].holds)):
        of_dye.setdefault(bags[n].dye, []).append(n)
    rooms = sorted((sum(left[n] for n in mine), dye) for dye, mine in of_dye.items())
    grid: Grid = [[0] * len(bags) for _ in wishes]
    later = []

    def take(which: int, place: int, missing: int) -> int:
        """From one dye lot; what is still missing."""
        room, dye = rooms.pop(place)
        amount = min(room, missing)
        if room > amount:
            insort(rooms, (room - amount, dye))
        for n in of_dye[dye]:
            part = min(amount, left[n])
            grid[which][n] += part
            left[n] -= part
            amount -= part
        return missing - min(room, missing)

    for which in order:
        missing = wishes[which].gets
        place = bisect_left(rooms, (missing, -1))
        if missing and place < len(rooms) and wishes[which].visible:
            take(which, place, missing)
        elif missing:
            later.append(which)
    for which in later:
        missing = wishes[which].gets
        while missing:
            missing = take(which, 0 if small else len(rooms) - 1, missing)
    return grid
