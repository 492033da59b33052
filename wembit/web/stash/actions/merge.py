"""Put one bag into another."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import MERGED_IN, MERGED_OUT, Entry, Lot
from wembit.web.stash.queries import lot_of
from wembit.web.studio.models import MAKER, Member

MERGE = "merge"


@transaction.atomic
def merge(member: Member, lot_id: UUID, into_id: UUID, *, press: Press) -> Entry:
    """Empty a lot into another one of the same item. Raises `Refusal` for two items, `Http404`."""
    member.must_be(MAKER)
    lot, into = lot_of(member.studio, lot_id), lot_of(member.studio, into_id)
    if lot.pk == into.pk or lot.item_id != into.item_id:
        raise Refusal("Only two bags of the same wool go together. Choose another bag.", "into")
    draft = EntryDraft.start(member, press, MERGE, (lot_id, into_id), [lot.item_id])
    if draft.repeated:
        return draft.repeated
    held = Lot.objects.filter(pk=lot.pk).locked().get().on_hand
    if not held:
        raise Refusal("That bag is empty already.", "into")
    _mix_cost(lot, into, held)
    note = "" if lot.dye_lot == into.dye_lot else f"dye lots {lot.dye_lot or '?'} and {into.dye_lot or '?'} mixed"
    return draft.commit([Line(lot.pk, MERGED_OUT, -held), Line(into.pk, MERGED_IN, held)], note=note)


def _mix_cost(lot: Lot, into: Lot, held: Decimal) -> None:
    """What is in the bag now costs what both cost together; nobody knows where one of them is not known."""
    there = Lot.objects.filter(pk=into.pk).locked().get().on_hand
    if lot.unit_cost == into.unit_cost:
        return
    mixed = None
    if lot.unit_cost is not None and into.unit_cost is not None:
        mixed = (lot.unit_cost * held + into.unit_cost * there) / (held + there)
    Lot.objects.filter(pk=into.pk).update(unit_cost=mixed)
