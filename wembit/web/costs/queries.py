"""What is read for the pages of money."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from decimal import Decimal
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.db.models import Sum
from django.db.models.functions import TruncMonth

from wembit.core.stock.costing import Costed
from wembit.web import clock
from wembit.web.bench.models import Making
from wembit.web.bench.queries import kept_takes
from wembit.web.stash.models import FIBRE, Item, Lot, Movement, standing
from wembit.web.stash.prices import Prices
from wembit.web.stash.queries import USED

if TYPE_CHECKING:
    from wembit.web.figures.models import Figure
    from wembit.web.studio.models import Studio


class OfBag(NamedTuple):
    """So much of a bag of an item, and what one of it cost when it came, where that is known."""

    item: UUID
    amount: Decimal
    unit_cost: Decimal | None

    def costed(self, each: Prices) -> Costed:
        """At what it cost when it came, else at what one of the item costs now."""
        return Costed("", self.amount, each.get(self.item) if self.unit_cost is None else self.unit_cost)


def bags(studio: Studio) -> list[OfBag]:
    """All bags that hold something."""
    rows = Lot.objects.of(studio).filter(on_hand__gt=0, waste=False)
    return [OfBag(*row) for row in rows.values_list("item", "on_hand", "unit_cost")]


def items(studio: Studio, ids: Iterable[UUID]) -> dict[UUID, Item]:
    """These items, with breeds of the studio's own."""
    rows = Item.objects.of(studio).filter(pk__in=set(ids)).select_related("own_breed")
    return {item.pk: item for item in rows}


def used_by_month(studio: Studio, since: dt.date) -> dict[dt.date, dict[UUID, Decimal]]:
    """What was taken of each wool, less what came back, by the first day of the month in the studio's time zone."""
    taken = Movement.objects.of(studio).filter(
        standing("entry"), lot__item__kind=FIBRE, kind__in=USED, entry__reverses=None,
        entry__happened_at__gte=clock.at(studio, since, 0),
    )  # fmt: skip
    month = TruncMonth("entry__happened_at", tzinfo=clock.zone(studio))
    rows = taken.annotate(month=month).order_by().values_list("month", "lot__item").annotate(total=Sum("amount"))
    found: dict[dt.date, dict[UUID, Decimal]] = {}
    for moment, item, amount in rows:
        if amount < 0:
            found.setdefault(moment.date(), {})[item] = -amount
    return found


def finished(studio: Studio, figure: Figure, most: int) -> list[Making]:
    """The newest finished makings of a figure."""
    rows = Making.objects.of(studio).filter(colourway__version__figure=figure, finished_at__isnull=False)
    return list(rows.select_related("project", "colourway__version__figure").order_by("-finished_at")[:most])


def taken_for(makings: Sequence[Making]) -> list[tuple[UUID, OfBag]]:
    """What was taken for makings, each with the making's id; what came back is below zero."""
    rows = kept_takes().filter(layer__piece__making__in=makings)
    named = rows.values_list(
        "layer__piece__making", "movement__lot__item", "movement__amount", "movement__lot__unit_cost"
    )
    return [(making, OfBag(item, -amount, cost)) for making, item, amount, cost in named]
