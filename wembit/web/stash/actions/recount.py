"""Weigh a bag again."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press, book_at
from wembit.web.stash.models import RECOUNT, Entry, Lot
from wembit.web.stash.queries import lot_of
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def recount(member: Member, lot_id: UUID, found: Decimal, *, press: Press) -> Entry:
    """Record the weight found in a lot, in its unit; the difference to the book becomes a line.

    A recount that happened before the lot's last one changes nothing: the later one is nearer to the truth. Raises
    `Http404`, `Refusal`.
    """
    member.must_be(MAKER)
    lot = lot_of(member.studio, lot_id)
    if found < 0:
        raise Refusal("A bag cannot hold less than nothing.", "amount")
    draft = EntryDraft.start(member, press, RECOUNT, (lot_id, found), [lot.item_id])
    if draft.repeated:
        return draft.repeated
    lot = Lot.objects.of(member.studio).filter(pk=lot.pk).locked().get()
    newest = lot.recounted_at is None or draft.happened_at >= lot.recounted_at
    change = found - book_at(lot, draft.happened_at) if newest else Decimal(0)
    if newest:
        Lot.objects.filter(pk=lot.pk).update(recounted_at=draft.happened_at, weighed=True)
    unit = {"g": "g", "pc": "pieces", "mm": "mm"}[lot.item.unit]
    return draft.commit([Line(lot.pk, RECOUNT, change)], note=f"found {found.normalize():f} {unit}")
