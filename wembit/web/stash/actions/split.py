"""Split a bag in two."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press, Short
from wembit.web.stash.looks import tell_looks
from wembit.web.stash.models import SPLIT_IN, SPLIT_OUT, Entry, Lot
from wembit.web.stash.queries import lot_of
from wembit.web.stash.swatch import LOOK
from wembit.web.studio.models import MAKER, Member

SPLIT = "split"
COPIED = ("studio", "item", "drawer", "dye_lot", "predicted", "unit_cost", *LOOK)


@transaction.atomic
def split(member: Member, lot_id: UUID, amount: Decimal, *, press: Press) -> Entry:
    """Move `amount` of a lot into a new bag of the same item, dye lot, colour and drawer. Raises `Short`, `Http404`."""
    member.must_be(MAKER)
    lot = lot_of(member.studio, lot_id)
    if amount <= 0:
        raise Refusal("Put more than nothing into the new bag.", "amount")
    draft = EntryDraft.start(member, press, SPLIT, (lot_id, amount), [lot.item_id])
    if draft.repeated:
        return draft.repeated
    if amount > lot.on_hand:
        raise Short(lot, amount)
    new = Lot.objects.create(**{name: getattr(lot, name) for name in COPIED})
    tell_looks(member.studio, [lot.item_id])
    return draft.commit([Line(lot.pk, SPLIT_OUT, -amount), Line(new.pk, SPLIT_IN, amount)])
