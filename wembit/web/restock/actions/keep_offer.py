"""Keep what a supplier offers: an item in a pack at a price."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from decimal import Decimal
from itertools import pairwise
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.restock.models import Offer, Supplier
from wembit.web.stash.models import Item
from wembit.web.studio.models import OWNER, Member


@transaction.atomic
def keep_offer(
    member: Member,
    supplier_id: UUID,
    item_id: UUID,
    pack: Decimal,
    price: Decimal,
    breaks: Mapping[int, Decimal] | None = None,
    picked: UUID | None = None,
) -> Offer:
    """Add the offer, or give the one of that pack size, or the one that was `picked` of that item, the new price and size;
    `breaks`: from so many packs on each costs so much, None: as before. Raises `Refusal`, `Http404`.
    """
    member.must_be(OWNER)
    supplier = get_object_or_404(Supplier.objects.of(member.studio), pk=supplier_id)
    item = get_object_or_404(Item.objects.of(member.studio), pk=item_id)
    if pack < Decimal("0.01"):
        raise Refusal("A pack holds more than nothing.", "pack")
    theirs = Offer.objects.of(member.studio).filter(supplier=supplier, item=item)
    same = theirs.filter(pack=pack).first()
    offer = theirs.filter(pk=picked).first() if picked else same
    if offer and same and offer != same:
        raise Refusal("There is a pack of that size already. Pick that one.", "pack")
    offer = offer or Offer(studio=member.studio, supplier=supplier, item=item)
    lower = offer.breaks if breaks is None else sorted(breaks.items())
    for (_, dearer), (count, cheaper) in pairwise([(1, price), *lower]):
        if cheaper >= dearer:
            raise Refusal(f"From {count} packs on each costs less. Check the prices.", "price")
    offer.pack, offer.price, offer.lower = pack, price, [[count, str(each)] for count, each in lower]
    offer.save()
    price_item(item, Offer.objects.filter(item=item))
    return offer


def price_item(item: Item, offers: Iterable[Offer]) -> None:
    """Keep with the item what one unit of it costs in its cheapest pack."""
    item.unit_cost = min((offer.price / offer.pack for offer in offers), default=None)
    item.save(update_fields=["unit_cost"])


@transaction.atomic
def drop_offer(member: Member, offer_id: UUID) -> UUID:
    """It is not sold any more; what stands on lists stays there. The id of its supplier. Raises `Http404`."""
    member.must_be(OWNER)
    offer = get_object_or_404(Offer.objects.of(member.studio).select_related("item"), pk=offer_id)
    item, supplier = offer.item, offer.supplier_id
    offer.delete()
    price_item(item, Offer.objects.filter(item=item))
    return supplier
