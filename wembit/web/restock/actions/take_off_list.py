"""Take a line off an order list."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.restock.models import DRAFT, OrderLine
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def take_off_list(member: Member, line_id: UUID) -> None:
    """Remove a line of a list that was not sent; an empty list goes with it. Raises `Http404`."""
    member.must_be(MAKER)
    line = get_object_or_404(OrderLine.objects.of(member.studio).filter(order__state=DRAFT), pk=line_id)
    order = line.order
    line.delete()
    if not order.lines.exists():
        order.delete()
