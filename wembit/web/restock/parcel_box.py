"""A parcel as a box: its packs as the bags that they become, at the scale of the shelf."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web.stash.models import ZERO, Lot
from wembit.web.stash.shelf.shelf_chart import DrawnLot, draw

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence
    from decimal import Decimal
    from uuid import UUID

    from .models import OrderLine


MOST = 40  # packs of a line that are touched one by one; more are one bundle


@dataclass(frozen=True)
class Packs:
    """One line of a parcel: what is touched of it drawn, a pack or a bundle of all, and the number of each, from 1."""

    line: OrderLine
    drawn: DrawnLot
    numbers: range
    amount: Decimal


def packs(lines: Sequence[OrderLine], colours: Mapping[UUID, str]) -> list[Packs]:
    """The packs of each line, in its newest colour; grey where nobody has told one."""
    return [_packs(line, colours.get(line.item_id, "")) for line in lines]


def _packs(line: OrderLine, srgb: str) -> Packs:
    """Drawn as bags that are in no book yet."""
    count, amount = (line.count, line.pack) if line.count <= MOST else (1, line.amount)
    bag = Lot(item=line.item, on_hand=amount, weighed=True, srgb=srgb)
    bag.promised = ZERO
    return Packs(line, draw(bag), range(1, count + 1), amount)
