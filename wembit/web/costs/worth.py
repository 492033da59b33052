"""What the shelf is worth, and how much wool of which colour and breed goes a month."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.stock.costing import Costed, cents, total
from wembit.web import clock
from wembit.web.stash.models import ZERO, Item
from wembit.web.stash.prices import prices
from wembit.web.stash.queries import colours

from . import queries

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

MONTHS, MONTH_PX, HIGH_PX, COLUMN_PX = 12, 68.0, 200.0, 46.0  # shown; of a month, of the fullest one, of its column
SHELF_PX, MOST_ROWS = 860.0, 40
UNKNOWN = "#9b9b9b"


@dataclass(frozen=True)
class Held:
    """What the bags of one item are worth, where it lies in the bar, and its colour."""

    item: Item
    amount: Decimal
    worth: Decimal
    colour: str
    x: float
    wide: float


@dataclass(frozen=True)
class Worth:
    """The shelf's value: item by item, the dearest first; what is on the shelf and has no price."""

    all: Decimal
    rows: list[Held]
    more: int
    unpriced: list[str]
    bar_px: float = SHELF_PX


def worth(studio: Studio) -> Worth:
    """By what each bag cost, else by its item's price. Four queries."""
    lots = queries.bags(studio)
    items = queries.items(studio, {bag.item for bag in lots})
    each, seen = prices(studio, items), colours(studio, items)
    by_item: dict[UUID, list[Costed]] = {}
    for bag in lots:
        by_item.setdefault(bag.item, []).append(bag.costed(each))
    valued = {pk: sum((line.cost for line in lines), ZERO) for pk, lines in by_item.items()}
    whole = total([line for lines in by_item.values() for line in lines])
    scale = SHELF_PX / float(whole) if whole else 0.0
    rows, x = [], 0.0
    for pk in sorted(valued, key=lambda pk: -valued[pk]):
        if not valued[pk]:
            continue
        wide = float(valued[pk]) * scale
        amount = sum((line.amount for line in by_item[pk]), ZERO)
        rows.append(Held(items[pk], amount, cents(valued[pk]), seen.get(pk, UNKNOWN), round(x, 1), round(wide, 1)))
        x += wide
    unpriced = sorted({items[pk].name for pk, lines in by_item.items() if any(line.each is None for line in lines)})
    return Worth(whole, rows[:MOST_ROWS], max(0, len(rows) - MOST_ROWS), unpriced)


@dataclass(frozen=True)
class Piece:
    """Of a month's column: a colour from y on, so high."""

    colour: str
    y: float
    high: float
    name: str
    grams: Decimal


@dataclass(frozen=True)
class Month:
    """A month's column, all its wool in g."""

    first: dt.date
    x: float
    pieces: list[Piece]
    grams: Decimal

    @property
    def top(self) -> float:
        """Where its column begins."""
        return min((piece.y for piece in self.pieces), default=HIGH_PX)

    @property
    def high(self) -> float:
        return round(HIGH_PX - self.top, 1)


@dataclass(frozen=True)
class Use:
    """A year of wool: month by month in its colours; by breed, the most first."""

    months: list[Month]
    breeds: list[tuple[str, Decimal]]
    ground_y: float = HIGH_PX
    column_px: float = COLUMN_PX
    column_x: float = (MONTH_PX - COLUMN_PX) / 2
    middle_x: float = MONTH_PX / 2

    @property
    def width(self) -> float:
        return MONTH_PX * len(self.months)


def use(studio: Studio) -> Use:
    """What was taken off the shelf in the last twelve months, less what came back. Three queries."""
    today = clock.today(studio)
    firsts = _firsts(today)
    by_month = queries.used_by_month(studio, firsts[0])
    items = queries.items(studio, {pk for amounts in by_month.values() for pk in amounts})
    seen = colours(studio, items)
    breeds: dict[str, Decimal] = {}
    for amounts in by_month.values():
        for pk, grams in amounts.items():
            breeds[items[pk].source.name] = breeds.get(items[pk].source.name, ZERO) + grams
    most = max((sum(amounts.values(), ZERO) for amounts in by_month.values()), default=ZERO)
    scale = HIGH_PX / float(most) if most else 0.0
    months = [_month(first, n, by_month.get(first, {}), items, seen, scale) for n, first in enumerate(firsts)]
    return Use(months, sorted(breeds.items(), key=lambda row: -row[1]))


def _firsts(today: dt.date) -> list[dt.date]:
    """The first days of the last months, the oldest first."""
    firsts, first = [], today.replace(day=1)
    for _ in range(MONTHS):
        firsts.append(first)
        first = (first - dt.timedelta(days=1)).replace(day=1)
    return firsts[::-1]


def _month(
    first: dt.date,
    n: int,
    amounts: Mapping[UUID, Decimal],
    items: Mapping[UUID, Item],
    seen: Mapping[UUID, str],
    scale: float,
) -> Month:
    """Pale wools above dark ones, so that a column reads as a heap does."""
    y, pieces = HIGH_PX, []
    for pk in sorted(amounts, key=lambda pk: (_light(seen.get(pk, UNKNOWN)), items[pk].name)):
        high = float(amounts[pk]) * scale
        y -= high
        pieces.append(Piece(seen.get(pk, UNKNOWN), round(y, 1), round(high, 1), items[pk].name, amounts[pk]))
    return Month(first, MONTH_PX * n, pieces, sum(amounts.values(), ZERO))


def _light(colour: str) -> int:
    return sum(int(colour[at : at + 2], 16) for at in (1, 3, 5))


def shares(rows: Sequence[tuple[str, Decimal]], width: float) -> list[tuple[str, Decimal, float]]:
    """Each with its length in px, the longest as wide as there is room."""
    most = max((amount for _, amount in rows), default=ZERO)
    return [(name, amount, round(width * float(amount / most), 1)) for name, amount in rows] if most else []
