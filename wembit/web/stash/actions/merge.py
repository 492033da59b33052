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
    note = "" if lot.dye_lot == into.dye_lot else f"dye lots {lot.dye_lot or '?'} and {into.dye_lot or '?'} mixed"
    entry = draft.commit([Line(lot.pk, MERGED_OUT, -held), Line(into.pk, MERGED_IN, held)], note=note)
    mix_cost(entry)
    return entry


def mix_cost(entry: Entry) -> None:
    """What is in the bag now costs what both cost together; nobody knows where one of them is not known.

    The bag remembers what it cost before, so that a merge can be taken back. Within the caller's transaction.
    """
    poured, filled = (entry.movements.select_related("lot").get(kind=kind) for kind in (MERGED_OUT, MERGED_IN))
    before, added = filled.lot.unit_cost, poured.lot.unit_cost
    if before == added:
        return
    mixed = None
    if before is not None and added is not None:
        there = filled.lot.on_hand - filled.amount
        mixed = (before * there + added * filled.amount) / filled.lot.on_hand
    filled.lot.mixed = {**filled.lot.mixed, str(entry.pk): None if before is None else str(before)}
    filled.lot.unit_cost = mixed
    filled.lot.save(update_fields=["mixed", "unit_cost"])


def unmix_cost(entry: Entry) -> None:
    """What the bag cost before that merge. Within the caller's transaction."""
    lot = entry.movements.select_related("lot").get(kind=MERGED_IN).lot
    if str(entry.pk) in lot.mixed:
        before = lot.mixed.pop(str(entry.pk))
        lot.unit_cost = None if before is None else Decimal(before)
        lot.save(update_fields=["mixed", "unit_cost"])
