"""Enter a delivery."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.looks import tell_looks
from wembit.web.stash.models import RECEIVED, Entry, Item, Lot
from wembit.web.stash.queries import newest_look
from wembit.web.studio.models import MAKER, Member

from .name_drawer import drawer_called

RECEIVE = "received"


@dataclass(frozen=True)
class Parcel:
    """One bag of a delivery; colour and drawer are those of the item's newest lot unless said."""

    item_id: UUID
    amount: Decimal
    dye_lot: str = ""
    drawer: str = ""
    unit_cost: Decimal | None = None  # of a g, piece or mm


@transaction.atomic
def receive(member: Member, parcels: Sequence[Parcel], *, press: Press) -> Entry:
    """Make a new lot of each parcel, all in one entry. Raises `Refusal` without anything to enter."""
    member.must_be(MAKER)
    parcels = [parcel for parcel in parcels if parcel.amount > 0]
    if not parcels:
        raise Refusal("Enter what came: at least one amount.", "amount")
    items = {item.pk: item for item in Item.objects.of(member.studio).filter(pk__in={p.item_id for p in parcels})}
    draft = EntryDraft.start(member, press, RECEIVE, tuple(parcels), items)
    if draft.repeated:
        return draft.repeated
    lines = []
    for parcel in parcels:
        look = newest_look(items[parcel.item_id])
        if parcel.drawer:
            look["drawer"] = drawer_called(member, parcel.drawer)
        lot = Lot.objects.create(
            studio=member.studio, item=items[parcel.item_id], dye_lot=parcel.dye_lot, unit_cost=parcel.unit_cost, **look
        )
        lines.append(Line(lot.pk, RECEIVED, parcel.amount))
    tell_looks(member.studio, items)
    return draft.commit(lines)
