"""Keep what a supplier offers: an item in a pack at a price."""

from __future__ import annotations

from collections.abc import Iterable
from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.restock.models import Offer, Supplier
from wembit.web.stash.models import Item
from wembit.web.studio.models import OWNER, Member


@transaction.atomic
def keep_offer(member: Member, supplier_id: UUID, item_id: UUID, pack: Decimal, price: Decimal) -> Offer:
    """Add the offer, or give the one of that pack size the new price. Raises `Refusal`, `Http404`."""
    member.must_be(OWNER)
    supplier = get_object_or_404(Supplier.objects.of(member.studio), pk=supplier_id)
    item = get_object_or_404(Item.objects.of(member.studio), pk=item_id)
    if pack < Decimal("0.01"):
        raise Refusal("A pack holds more than nothing.", "pack")
    offer, _ = Offer.objects.update_or_create(
        supplier=supplier, item=item, pack=pack, defaults={"studio": member.studio, "price": price}
    )
    price_item(item, Offer.objects.filter(item=item))
    return offer


def price_item(item: Item, offers: Iterable[Offer]) -> None:
    """Keep with the item what one unit of it costs in its cheapest pack."""
    item.unit_cost = min((offer.price / offer.pack for offer in offers), default=None)
    item.save(update_fields=["unit_cost"])
