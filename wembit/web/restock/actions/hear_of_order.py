"""Keep what a supplier says of an order that is on its way."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.restock.models import Order
from wembit.web.restock.queries import order_of, sent_orders
from wembit.web.restock.supplier_bridge import Answer
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def hear_of_order(member: Member, order_id: UUID, answer: Answer) -> Order:
    """The day on which it comes now, and what is in it once it is there. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    order = order_of(member.studio, order_id).order
    if not sent_orders(member.studio).filter(pk=order.pk).exists():
        raise Refusal("That order is not on its way. Look at the shelf: it may have arrived already.")
    order.expected_on, order.note = answer.arrives_on, answer.noted()
    order.save(update_fields=["expected_on", "note"])
    return order
