"""What is ordered together, so that one postage carries it: what one supplier has to be asked for within some days of the
first, filled up to a minimum order by what comes next, and as much of it as a budget allows.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

ZERO = Decimal(0)
TOGETHER_DAYS = 14


@dataclass(frozen=True)
class Wanted:
    """Something to order by a day, and what its packs cost; `key` tells it from others."""

    key: object
    by: dt.date
    cost: Decimal


@dataclass(frozen=True)
class Joined:
    """What goes into one order, in the order of its days; what of it only fills it up; what a budget leaves out."""

    lines: list[Wanted]
    filling: list[Wanted]
    left_out: list[Wanted]

    @property
    def goods(self) -> Decimal:
        return sum((each.cost for each in (*self.lines, *self.filling)), ZERO)


def joined(
    wanted: Sequence[Wanted], minimum: Decimal = ZERO, budget: Decimal | None = None, postage: Decimal = ZERO
) -> Joined:
    """What has to be ordered within `TOGETHER_DAYS` of the first of it; the next ones after that while the goods are below
    `minimum`. With a budget, which the postage is part of: each whole, the most urgent first, while it still fits.
    """
    rows = sorted(wanted, key=lambda each: (each.by, str(each.key)))
    if not rows:
        return Joined([], [], [])
    last = rows[0].by + dt.timedelta(TOGETHER_DAYS)
    near, later = [row for row in rows if row.by <= last], [row for row in rows if row.by > last]
    filling: list[Wanted] = []
    goods = sum((row.cost for row in near), ZERO)
    while later and goods < minimum:
        filling.append(later.pop(0))
        goods += filling[-1].cost
    if budget is None:
        return Joined(near, filling, [])
    room, kept, left_out = budget - postage, [], []
    for row in (*near, *filling):
        if row.cost <= room:
            kept.append(row)
            room -= row.cost
        else:
            left_out.append(row)
    return Joined([row for row in near if row in kept], [row for row in filling if row in kept], left_out)
