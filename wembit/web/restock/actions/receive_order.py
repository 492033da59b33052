"""Enter the delivery of an order."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from uuid import UUID

from django.db import transaction

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.restock.models import ARRIVED, SENT, Order, OrderLine
from wembit.web.restock.queries import order_of, sent_orders
from wembit.web.stash.actions.receive import Parcel, receive
from wembit.web.stash.ledger import Press
from wembit.web.stash.models import Entry
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def receive_order(
    member: Member,
    order_id: UUID,
    parcels: Sequence[Parcel],
    *,
    press: Press,
    missing: Mapping[UUID, int] | None = None,
    follows_on: dt.date | None = None,
) -> Order:
    """What came becomes lots on the shelf, and the order has arrived; what is `missing` (packs by line) is on its way still,
    as an order of its own. Raises `Refusal`, `Http404`.
    """
    member.must_be(MAKER)
    order = order_of(member.studio, order_id).order
    Order.objects.filter(pk=order.pk).locked().get()
    if Entry.objects.of(member.studio).filter(client_key=press.key).exists():
        return order
    if not sent_orders(member.studio).filter(pk=order.pk).exists():
        raise Refusal("That order is not on its way. Look at the shelf: it may have arrived already.")
    order.entry = receive(member, parcels, press=press)
    order.state = ARRIVED
    order.save(update_fields=["entry", "state"])
    if missing:
        _rest_of(order, missing, follows_on or clock.today(member.studio) + dt.timedelta(order.supplier.lead_days))
    return order


def _rest_of(order: Order, missing: Mapping[UUID, int], follows_on: dt.date) -> None:
    rest = Order.objects.create(
        studio=order.studio, supplier=order.supplier, state=SENT, sent_on=order.sent_on, expected_on=follows_on,
        one_dye_lot=order.one_dye_lot, rest_of=order,
    )  # fmt: skip
    for line in order.lines.all():
        if count := missing.get(line.pk, 0):
            OrderLine.objects.create(
                studio=order.studio, order=rest, item_id=line.item_id, pack=line.pack, price=line.price, count=count
            )


def arrived_by(old: Entry, new: Entry) -> None:
    """The order that arrived by the old entry has arrived by the new one; within the caller's transaction."""
    Order.objects.of(old.studio).filter(entry=old).update(entry=new)
