"""What to order together: one order a supplier for what has to be ordered in the next two weeks."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.stock.joining import Joined, Wanted, joined

from .queries import TideLine, tides_now, to_show

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

    from .models import Offer, Supplier


@dataclass(frozen=True)
class Together:
    """What one supplier is asked for: its tide lines that go in now, those that only fill up, those that a budget leaves
    short; what the goods cost, and what is missing to the minimum order.
    """

    supplier: Supplier
    lines: list[TideLine]
    filling: list[TideLine]
    left_out: list[TideLine]
    goods: Decimal

    @property
    def all(self) -> Decimal:
        return self.goods + self.supplier.postage

    @property
    def to_minimum(self) -> Decimal:
        return max(self.supplier.minimum - self.goods, Decimal(0))

    def packs(self) -> dict[UUID, int]:
        """How many packs of which offer go onto the list."""
        return {offer.pk: count for tide in (*self.lines, *self.filling) for offer, count in tide.packs}


def together(studio: Studio, budget: Decimal | None = None, only: UUID | None = None) -> list[Together]:
    """By supplier, the first day first; one supplier's alone where that is asked. What is on a list already is not asked for
    again. Two queries beside the tides.
    """
    tides = [tide for tide in tides_now(studio) if tide.to_order and not tide.on_list and tide.packs]
    by_supplier: dict[UUID, list[TideLine]] = {}
    for tide in tides:
        if tide.supplier and only in (None, tide.supplier.pk):
            by_supplier.setdefault(tide.supplier.pk, []).append(tide)
    shown = {tide.item.pk: tide for tide in to_show([tide for rows in by_supplier.values() for tide in rows])}
    found = [_together([shown[tide.item.pk] for tide in rows], budget) for rows in by_supplier.values()]
    return sorted((each for each in found if each.lines or each.left_out), key=lambda each: each.supplier.name)


def _together(tides: Sequence[TideLine], budget: Decimal | None) -> Together:
    supplier = tides[0].supplier
    assert supplier is not None, "only lines of suppliers are put together"
    by_key: Mapping[object, TideLine] = {tide.item.pk: tide for tide in tides}
    wanted = [Wanted(tide.item.pk, tide.order_by, _cost(tide.packs)) for tide in tides if tide.order_by]
    order: Joined = joined(wanted, supplier.minimum, budget, supplier.postage)

    def of(rows: Sequence[Wanted]) -> list[TideLine]:
        return [tide for row in rows if (tide := by_key.get(row.key))]

    return Together(supplier, of(order.lines), of(order.filling), of(order.left_out), order.goods)


def _cost(packs: Sequence[tuple[Offer, int]]) -> Decimal:
    return sum((offer.price_of(count) * count for offer, count in packs), Decimal(0))
