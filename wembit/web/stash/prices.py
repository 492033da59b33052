"""What one g, piece or mm of a thing costs: its cheapest pack, else what its parts cost; a bag may know better."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.stock.costing import blended
from wembit.web.asked import id_in

from .models import Item

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

Prices = Mapping[UUID, Decimal | None]


def prices(studio: Studio, ids: Iterable[UUID]) -> dict[UUID, Decimal | None]:
    """What one of each item costs, None where nobody knows. Two queries."""
    rows = {item.pk: item for item in Item.objects.of(studio).filter(pk__in=set(ids))}
    inside = {pk for item in rows.values() for row in item.recipe if (pk := id_in(row["item"]))}
    known = dict(Item.objects.of(studio).filter(pk__in=inside).values_list("pk", "unit_cost")) if inside else {}
    return {pk: item.unit_cost if item.unit_cost is not None else _of_parts(item, known) for pk, item in rows.items()}


def _of_parts(item: Item, known: Prices) -> Decimal | None:
    return blended([(known.get(pk) if (pk := id_in(row["item"])) else None, row["parts"]) for row in item.recipe])
