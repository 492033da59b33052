"""Say how much of an item should always be free."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.stash.models import Item
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def set_minimum(member: Member, item_id: UUID, minimum: Decimal) -> Item:
    """Keep the item's minimum, in its unit. Raises `Http404`."""
    member.must_be(MAKER)
    item = get_object_or_404(Item.objects.of(member.studio), pk=item_id)
    item.minimum = minimum
    item.save(update_fields=["minimum"])
    return item
