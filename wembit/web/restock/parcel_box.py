"""A parcel as a box: its packs as the bags that they become, at the scale of the shelf."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.core.stock.packs import lacking
from wembit.web.stash.models import ZERO, Lot
from wembit.web.stash.shelf.shelf_chart import DrawnLot, draw

from .supplier_bridge import DELIVERED

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence
    from decimal import Decimal
    from uuid import UUID

    from .models import OrderLine
    from .queries import OrderPage


MOST = 40  # packs of a line that are touched one by one; more are one bundle


@dataclass(frozen=True)
class Expected:
    """So many packs of an order's line that should be in the parcel, all of one dye lot where the supplier named it."""

    line: OrderLine
    count: int
    dye_lot: str = ""


def expected(page: OrderPage) -> list[Expected]:
    """What should be in the parcel: as the supplier's note says, once there is one, else as ordered."""
    came = page.order.note.get("came", []) if page.order.note.get("state") == DELIVERED else []
    named: dict[str, list[tuple[str, int]]] = {}
    for line, dye_lot, count in came:
        named.setdefault(line, []).append((dye_lot, count))
    return [
        Expected(line, count, dye_lot)
        for line in page.lines
        for dye_lot, count in (named.get(str(line.pk)) or [("", 0)] if came else [("", line.count)])
    ]


def missing(rows: Sequence[tuple[OrderLine, Decimal]]) -> dict[UUID, int]:
    """How many packs of which line did not come; `rows`: a line and what came of it, several times where it came in parts."""
    came: dict[UUID, Decimal] = {}
    for line, amount in rows:
        came[line.pk] = came.get(line.pk, ZERO) + amount
    lines = {line.pk: line for line, _ in rows}
    short = {pk: lacking(line.amount, line.pack, came[pk]) for pk, line in lines.items()}
    return {pk: count for pk, count in short.items() if count > 0}


@dataclass(frozen=True)
class Packs:
    """One line of a parcel: what is touched of it drawn, a pack or a bundle of all, and the number of each, from 1."""

    line: OrderLine
    drawn: DrawnLot
    numbers: range
    amount: Decimal


def packs(rows: Sequence[Expected], colours: Mapping[UUID, str]) -> list[Packs]:
    """The packs of each row, in its newest colour; grey where nobody has told one."""
    return [_packs(row, colours.get(row.line.item_id, "")) for row in rows]


def _packs(row: Expected, srgb: str) -> Packs:
    """Drawn as bags that are in no book yet."""
    line = row.line
    count, amount = (row.count, line.pack) if row.count <= MOST else (1, line.pack * row.count)
    bag = Lot(item=line.item, on_hand=amount, weighed=True, srgb=srgb)
    bag.promised = ZERO
    return Packs(line, draw(bag), range(1, count + 1), amount)
