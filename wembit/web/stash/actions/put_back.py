"""Put wool back into its bag."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import RETURNED, Entry
from wembit.web.stash.queries import lot_of
from wembit.web.studio.models import MAKER, Member

PUT_BACK = "put back"


@transaction.atomic
def put_back(member: Member, lot_id: UUID, amount: Decimal, *, press: Press, need: UUID | None = None) -> Entry:
    """Record that `amount`, in the lot's unit, came back into the lot. Raises `Http404`, `Refusal`."""
    member.must_be(MAKER)
    lot = lot_of(member.studio, lot_id)
    if amount <= 0:
        raise Refusal("Put back more than nothing.", "amount")
    draft = EntryDraft.start(member, press, PUT_BACK, (lot_id, amount, need), [lot.item_id])
    return draft.repeated or draft.commit([Line(lot.pk, RETURNED, amount, need)])
