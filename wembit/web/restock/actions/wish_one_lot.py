"""Wish that each colour of a list comes of one dye lot, or no longer."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.restock.models import DRAFT, Order
from wembit.web.restock.queries import order_of
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def wish_one_lot(member: Member, order_id: UUID, *, wished: bool) -> Order:
    """Raises `Refusal` for an order that was sent, `Http404`."""
    member.must_be(MAKER)
    order = order_of(member.studio, order_id).order
    if order.state != DRAFT:
        raise Refusal("That list was sent already.")
    order.one_dye_lot = wished
    order.save(update_fields=["one_dye_lot"])
    return order
