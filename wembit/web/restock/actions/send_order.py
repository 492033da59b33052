"""Say that an order list was sent."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from django.db import transaction

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.restock.models import DRAFT, SENT, Order
from wembit.web.restock.queries import order_of
from wembit.web.restock.supplier_bridge import Answer
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def send_order(
    member: Member, order_id: UUID, expected_on: dt.date | None = None, answer: Answer | None = None
) -> Order:
    """The list was sent today; it is expected on the day that the supplier's answer names, that is said, or after the
    supplier's lead time. Raises `Refusal`, `Http404`.
    """
    member.must_be(MAKER)
    order = order_of(member.studio, order_id).order
    if order.state != DRAFT:
        raise Refusal("That list was sent already.")
    today = clock.today(member.studio)
    order.state, order.sent_on = SENT, today
    order.expected_on = expected_on or today + dt.timedelta(days=order.supplier.lead_days)
    if answer:
        order.expected_on, order.note = answer.arrives_on, answer.noted()
    order.save(update_fields=["state", "sent_on", "expected_on", "note"])
    return order
