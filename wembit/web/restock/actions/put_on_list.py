"""Put packs on a supplier's order list."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.limits import PACKS
from wembit.web.restock.models import DRAFT, Offer, Order, OrderLine
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def put_on_list(member: Member, packs: dict[UUID, int]) -> list[OrderLine]:
    """Add `count` packs of each offer to its supplier's list, made where there is none, at the price of as many as then stand
    there. Raises `Refusal`, `Http404`.
    """
    member.must_be(MAKER)
    packs = {offer: count for offer, count in packs.items() if count > 0}
    if not packs:
        raise Refusal("Choose at least one pack.", "count")
    lines = []
    for offer_id, count in packs.items():
        offer = get_object_or_404(Offer.objects.of(member.studio).select_related("supplier"), pk=offer_id)
        if count > PACKS:
            raise Refusal(f"That is more than {PACKS} packs. Check the number.", "count")
        order, _ = Order.objects.get_or_create(studio=member.studio, supplier=offer.supplier, state=DRAFT)
        line, new = OrderLine.objects.get_or_create(
            order=order,
            item=offer.item,
            pack=offer.pack,
            defaults={"studio": member.studio, "price": offer.price_of(count), "count": count},
        )
        if not new:
            line.count += count
            line.price = offer.price_of(line.count)
            line.save(update_fields=["count", "price"])
        lines.append(line)
    return lines
