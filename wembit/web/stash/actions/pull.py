"""Take wool from a lot."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import PULLED, Entry
from wembit.web.stash.queries import item_of_lot
from wembit.web.studio.models import MAKER, Member

PULL = "pull"


@transaction.atomic
def pull(member: Member, lot_id: UUID, amount: Decimal, *, press: Press, need: UUID | None = None) -> Entry:
    """Record that `amount`, in the lot's unit, left the lot; `need` says what it was promised for.

    The same `press` repeated returns the first entry. Raises `Short`, carrying what the book says is left, when the lot
    holds less: the screen then offers a recount. Raises `Http404` for another studio's lot.
    """
    member.must_be(MAKER)
    return pulled(member, lot_id, amount, item_of_lot(member.studio, lot_id), press=press, need=need)


def pulled(
    member: Member, lot_id: UUID, amount: Decimal, item: UUID, *, press: Press, need: UUID | None = None
) -> Entry:
    """The same within the caller's transaction, of a lot of the studio that holds that item."""
    member.must_be(MAKER)
    if amount <= 0:
        raise Refusal("Take more than nothing.", "amount")
    draft = EntryDraft.start(member, press, PULL, (lot_id, amount, need), [item])
    return draft.repeated or draft.commit([Line(lot_id, PULLED, -amount, need)])
