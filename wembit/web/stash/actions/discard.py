"""Throw wool away."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import DISCARDED, Entry
from wembit.web.stash.queries import lot_of
from wembit.web.studio.models import MAKER, Member

DISCARD = "discard"


@transaction.atomic
def discard(member: Member, lot_id: UUID, amount: Decimal, *, press: Press, why: str = "") -> Entry:
    """Record that `amount`, in the lot's unit, was thrown away. Raises `Short`, `Http404`, `Refusal`."""
    member.must_be(MAKER)
    lot = lot_of(member.studio, lot_id)
    if amount <= 0:
        raise Refusal("Throw away more than nothing.", "amount")
    draft = EntryDraft.start(member, press, DISCARD, (lot_id, amount, why), [lot.item_id])
    return draft.repeated or draft.commit([Line(lot.pk, DISCARDED, -amount)], note=why)
