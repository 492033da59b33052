"""Enter the delivery of an order."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.restock.models import ARRIVED, Order
from wembit.web.restock.queries import order_of, sent_orders
from wembit.web.stash.actions.receive import Parcel, receive
from wembit.web.stash.ledger import Press
from wembit.web.stash.models import Entry
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def receive_order(member: Member, order_id: UUID, parcels: Sequence[Parcel], *, press: Press) -> Order:
    """What came becomes lots on the shelf, and the order has arrived. Raises `Refusal`, `Http404`."""
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
    return order


def arrived_by(old: Entry, new: Entry) -> None:
    """The order that arrived by the old entry has arrived by the new one; within the caller's transaction."""
    Order.objects.of(old.studio).filter(entry=old).update(entry=new)
