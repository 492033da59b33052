"""What runs out, when, and what to order by which day."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.db.models import Count, Q, QuerySet, Sum
from django.db.models.functions import Coalesce
from django.http import Http404

from wembit.core.stock.breakage import Breakage
from wembit.core.stock.forecast import Dated, Fibre, Future, Habit, Level, Outlook, balances, lead_time, ordered
from wembit.core.stock.intermittent import WeeklyUse
from wembit.core.stock.lead_times import lead_of
from wembit.web import clock
from wembit.web.bench.queries import breakages
from wembit.web.plan.coming import Coming
from wembit.web.plan.models import Need
from wembit.web.plan.queries import NeedNow, at_the_bench, needs_now, open_needs
from wembit.web.stash.models import ZERO, Item, Lot
from wembit.web.stash.queries import with_colour
from wembit.web.stash.unplanned import habits

from .futures import HORIZON_DAYS, SERVICE, futures_of
from .lead_times import days_taken
from .models import ARRIVED, DRAFT, SENT, Offer, Order, OrderLine, Supplier

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

WEEK = dt.timedelta(7)
NO_USE = WeeklyUse()
CERTAIN = 0.95  # odds from which nothing else is said


class Held(NamedTuple):
    """Of an item as little as an outlook takes: how much of it is there, and how many bags nobody has weighed."""

    pk: UUID
    name: str
    on_hand: Decimal
    unweighed: int
    unit: str


@dataclass(frozen=True)
class TideLine:
    """One item's outlook: what runs out when, for whom, and who can bring it. To be shown, the item is a whole one."""

    item: Item | Held
    needs: Sequence[Need | NeedNow]
    on_the_way: list[OrderLine]
    on_list: Decimal
    supplier: Supplier | None
    offers: list[Offer]
    outlook: Outlook
    demands: list[Dated]
    receipts: list[Dated]
    habit: WeeklyUse = NO_USE
    levels: Sequence[Level] = ()
    lead_days: int = 0  # within which its supplier brings it nine times in ten
    broken: Breakage | None = None  # of needles: how often one breaks at the bench, from which the habit follows

    @property
    def moves(self) -> bool:
        """Whether there is something to do: it may run out, or stands on a list."""
        return self.outlook.runs_out is not None or self.on_list > 0

    @property
    def to_order(self) -> bool:
        """Runs out, and what is on the list does not hold it."""
        return self.outlook.runs_out is not None and float(self.on_list) + 0.005 < self.outlook.order_g

    @property
    def to_weigh(self) -> bool:
        """Runs out by what is known, and there is a bag that nobody has weighed: that comes before any order."""
        return self.outlook.runs_out is not None and self.item.unweighed > 0

    @property
    def order_by(self) -> dt.date | None:
        """The last day to order it; None where nothing is short or nobody is known to sell it."""
        return self.outlook.order_by if self.supplier else None

    def steps(self, today: dt.date) -> list[Dated]:
        """What is left of it in the middle on each day on which that changes; what is used beside plans goes week by week."""
        used = self.habit.weekly_g
        weekly = [Dated(today + WEEK * n, used) for n in range(1, HORIZON_DAYS // 7 + 1)] if used else []
        return balances(today, float(self.item.on_hand), [*self.demands, *weekly], self.receipts)

    @property
    def odds(self) -> float:
        """Of running short within the horizon."""
        return self.levels[-1].short if self.levels else 0.0

    @property
    def times_in_ten(self) -> int:
        """The same in words: so many times in ten; 10 where it is as good as certain."""
        return 10 if self.odds >= CERTAIN else max(1, min(9, round(10 * self.odds)))

    @property
    def look(self) -> tuple:
        """All that is drawn and said of it, by value."""
        item, seen = self.item, getattr(self.item, "srgb", "")
        coming = [(line.amount, line.order.expected_on) for line in self.on_the_way]
        words = (item.name, getattr(item, "what", ""), seen, item.on_hand, item.unweighed, item.unit)
        known = (self.outlook, self.on_list, self.supplier is None, self.habit, self.levels)
        return (*words, *known, self.demands, self.receipts, coming)

    @property
    def packs(self) -> list[tuple[Offer, int]]:
        by_pack = {float(offer.pack): offer for offer in self.offers}
        return [(by_pack[size], count) for size, count in self.outlook.chosen.packs]


def tides_now(studio: Studio) -> list[TideLine]:
    """`tide_lines` of all items, looked up once for a request: a page and its strip of places show the same."""
    return studio.once("tides", lambda: tide_lines(studio))


def tide_of(studio: Studio, item_id: UUID) -> TideLine:
    """One item's outlook, planned or not, with the whole item and its needs as `open_needs` gives them."""
    return to_show(tide_lines(studio, item_id))[0]


def tide_lines(studio: Studio, item_id: UUID | None = None) -> list[TideLine]:
    """Outlooks of what planned projects need, the most urgent first, without colours. A bounded number of queries."""
    today = clock.today(studio)
    some = [item_id] if item_id else None
    needs: Sequence[Need | NeedNow] = open_needs(studio, item=item_id) if item_id else needs_now(studio)
    by_item: dict[UUID, list[Need | NeedNow]] = {}
    for need in needs:
        if not need.left:
            continue
        by_item.setdefault(need.item_id, []).append(need)
    used = habits(studio, some)
    broken = _broken(studio, used, item_id)
    for key in used:
        by_item.setdefault(key, [])
    if item_id:
        by_item.setdefault(item_id, [])
    if not by_item:
        return []
    wanted = Q(pk=item_id) if item_id else Q()
    bags = Q(lots__waste=False)
    there = Coalesce(Sum("lots__on_hand", filter=bags), ZERO)
    unknown = Count("lots", filter=bags & Q(lots__weighed=False))
    rows = Item.objects.of(studio).filter(wanted).order_by("size_mm", "pk").annotate(there=there, unknown=unknown)
    items = [Held(*row) for row in rows.values_list("pk", "name", "there", "unknown", "unit") if row[0] in by_item]
    offers = offers_by_item(studio, some)
    moving, listed = open_lines(studio, some)
    taken = days_taken(studio)
    fibres = [_fibre(item, by_item[item.pk], moving.get(item.pk, []), used.get(item.pk, NO_USE)) for item in items]
    found = [
        _tide(item, by_item[item.pk], offers.get(item.pk, []), moving.get(item.pk, []), listed.get(item.pk, []),
              (today, used.get(item.pk, NO_USE), fibre, future, taken))
        for item, fibre, future in zip(items, fibres, futures_of(today, fibres), strict=True)
    ]  # fmt: skip
    far = dt.date.max
    found = [replace(tide, broken=broken.get(tide.item.pk)) for tide in found] if broken else found
    return sorted(found, key=lambda t: (t.outlook.order_by or far, t.outlook.runs_out or far, t.item.name))


def _broken(studio: Studio, used: dict[UUID, WeeklyUse], only: UUID | None) -> dict[UUID, Breakage]:
    """How often needles break, of those that do; what a week of the makers' hours breaks goes into `used`."""
    broke, hours = studio.cached_until_change("breakages", lambda: _breaks_and_hours(studio))
    known = {item: each for item, each in broke.items() if only in (None, item)}
    if not hours:
        return {}
    used |= {item: each.weekly(hours) for item, each in known.items()}
    return known


def _breaks_and_hours(studio: Studio) -> tuple[dict[UUID, Breakage], float]:
    """How often needles break, and the hours that the makers have in a week."""
    broke = breakages(studio)
    return broke, sum(sum(maker.hours.values()) for maker in at_the_bench(studio)) if broke else 0.0


def to_show(tides: Iterable[TideLine]) -> list[TideLine]:
    """The tides with their whole items, of which the colour is known. Two queries."""
    rows = list(tides)
    held = {tide.item.pk: tide.item for tide in rows}
    items = {item.pk: item for item in with_colour(Item.objects.filter(pk__in=held).select_related("own_breed"))}
    for pk, item in items.items():
        item.on_hand, item.unweighed = held[pk].on_hand, held[pk].unweighed
    return [replace(tide, item=items[tide.item.pk]) for tide in rows]


def _fibre(item: Held, needs: Sequence[Need | NeedNow], moving: list[OrderLine], used: WeeklyUse) -> Fibre:
    return Fibre(
        float(item.on_hand),
        [Dated(need.start, float(need.left), need.sigma) for need in needs],
        [Dated(line.order.expected_on, float(line.amount)) for line in moving if line.order.expected_on],
        Habit(used.weekly_g, used.weekly_sd_g),
    )


def _tide(
    item: Held,
    needs: Sequence[Need | NeedNow],
    offers: list[Offer],
    moving: list[OrderLine],
    listed: list[OrderLine],
    known: tuple[dt.date, WeeklyUse, Fibre, Future, dict[UUID, list[float]]],
) -> TideLine:
    """The item by the supplier who brings it in time for least; `known`: today, its habit, all that its future hangs on, and
    that.
    """
    today, used, fibre, future, taken = known
    choices: dict[Supplier, list[Offer]] = {}
    for offer in offers:
        choices.setdefault(offer.supplier, []).append(offer)
    outlooks = []
    for supplier, theirs in choices.items() or [(None, [])]:
        packs = [offer.priced for offer in theirs]
        lead = lead_time(*lead_of(supplier.lead_days, taken.get(supplier.pk, [])), SERVICE) if supplier else 0
        found = ordered(today, future.outlook.runs_out, future.outlook.order_g, lead, packs)
        name = supplier.name if supplier else ""
        outlooks.append((found.late, found.chosen.cost, name, supplier, theirs, found, lead))
    _, _, _, supplier, theirs, outlook, lead = min(outlooks, key=lambda row: row[:3])
    on_list = sum((line.amount for line in listed), ZERO)
    return TideLine(
        item,
        needs,
        moving,
        on_list,
        supplier,
        theirs,
        outlook,
        list(fibre.demands),
        list(fibre.receipts),
        used,
        future.levels,
        lead,
    )


def offers_by_item(studio: Studio, item_ids: Iterable[UUID] | None) -> dict[UUID, list[Offer]]:
    """The offers of each of these items, or of all."""
    found: dict[UUID, list[Offer]] = {}
    wanted = Q() if item_ids is None else Q(item__in=list(item_ids))
    for offer in Offer.objects.of(studio).filter(wanted).select_related("supplier").order_by("pack"):
        found.setdefault(offer.item_id, []).append(offer)
    return found


def sent_orders(studio: Studio) -> QuerySet[Order]:
    """Orders on their way: sent, or arrived by an entry that was taken back, and then with what was to follow."""
    there = Order.objects.of(studio).filter(Q(state=SENT) | Q(state=ARRIVED, entry__reversed_by__isnull=False))
    return there.exclude(rest_of__entry__reversed_by__isnull=False, rest_of__isnull=False)


def open_lines(
    studio: Studio, item_ids: Iterable[UUID] | None
) -> tuple[dict[UUID, list[OrderLine]], dict[UUID, list[OrderLine]]]:
    """The lines of orders on their way, and those still on a list, by item; of these items, or of all."""
    moving: dict[UUID, list[OrderLine]] = {}
    listed: dict[UUID, list[OrderLine]] = {}
    orders = sent_orders(studio) | Order.objects.of(studio).filter(state=DRAFT)
    wanted = Q() if item_ids is None else Q(item__in=list(item_ids))
    for line in OrderLine.objects.filter(wanted, order__in=orders).select_related("order"):
        (listed if line.order.state == DRAFT else moving).setdefault(line.item_id, []).append(line)
    return moving, listed


def coming_by_item(studio: Studio, item_ids: Iterable[UUID]) -> dict[UUID, Coming]:
    """What is on the way and what stands on a list, of those items of which something does."""
    moving, listed = open_lines(studio, item_ids)
    return {
        item_id: Coming(
            sum((line.amount for line in moving.get(item_id, [])), ZERO),
            min((line.order.expected_on for line in moving.get(item_id, []) if line.order.expected_on), default=None),
            sum((line.amount for line in listed.get(item_id, [])), ZERO),
        )
        for item_id in {*moving, *listed}
    }


@dataclass(frozen=True)
class OrderPage:
    """An order with its lines."""

    order: Order
    lines: list[OrderLine]

    @property
    def goods(self) -> Decimal:
        return sum((line.cost for line in self.lines), ZERO)

    @property
    def together(self) -> Decimal:
        return self.goods + self.order.supplier.postage


def orders(studio: Studio, chosen: QuerySet[Order]) -> list[OrderPage]:
    """Orders with their lines, suppliers and items."""
    rows = chosen.select_related("supplier").prefetch_related("lines__item").order_by("expected_on", "made_at")
    return [OrderPage(order, sorted(order.lines.all(), key=lambda line: line.item.name)) for order in rows]


def lists(studio: Studio) -> list[OrderPage]:
    """The lists that are not sent yet."""
    return orders(studio, Order.objects.of(studio).filter(state=DRAFT))


def on_the_way(studio: Studio) -> list[OrderPage]:
    """The orders that were sent."""
    return orders(studio, sent_orders(studio))


def order_of(studio: Studio, order_id: UUID) -> OrderPage:
    """This studio's order with its lines. Raises `Http404`."""
    pages = orders(studio, Order.objects.of(studio).filter(pk=order_id))
    if not pages:
        raise Http404
    return pages[0]


def suppliers(studio: Studio) -> list[Supplier]:
    """All suppliers with their offers."""
    return list(Supplier.objects.of(studio).prefetch_related("offers__item"))


@dataclass(frozen=True)
class ToOrder:
    """How many items are to be ordered and by when the first, how many have a bag to weigh before, how many others of what is
    short nobody sells, and how many lists wait to be sent.
    """

    count: int
    by: dt.date | None
    to_weigh: int
    unsold: int
    lists: int


def to_order(studio: Studio) -> ToOrder:
    """What the strip of places says of orders."""
    urgent = [tide for tide in tides_now(studio) if tide.to_order]
    days = [tide.order_by for tide in urgent if tide.order_by]
    lists_ = Order.objects.of(studio).filter(state=DRAFT).count()
    weigh = sum(tide.to_weigh for tide in urgent)
    unsold = sum(not tide.order_by and not tide.to_weigh for tide in urgent)
    return ToOrder(len(days), min(days, default=None), weigh, unsold, lists_)


def newest_drawer(item: Item) -> str:
    """Where the newest bag of an item lies; nothing where none does."""
    lot = Lot.objects.filter(item=item, waste=False).select_related("drawer").order_by("-made_at").first()
    return lot.drawer.name if lot and lot.drawer else ""
