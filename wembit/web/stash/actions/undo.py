"""Take back an entry."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.http import Http404

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press, reversing
from wembit.web.stash.models import RECOUNT, Entry, Lot, standing
from wembit.web.stash.queries import last_entry
from wembit.web.studio.models import MAKER, Member

from .merge import MERGE, unmix_cost

UNDO = "undo"


@transaction.atomic
def undo(member: Member, *, press: Press, entry_id: UUID | None = None) -> Entry:
    """Reverse a whole entry by a new one: the given one, or this member's last of today.

    The new entry's lines mirror the old one's, lot by lot. Raises `Refusal` when there is nothing to take back or it was
    taken back already, `Short` when a lot would go below zero, `Http404` for another studio's entry.
    """
    member.must_be(MAKER)
    earlier = Entry.objects.of(member.studio).filter(client_key=press.key).first()
    if earlier:
        return earlier
    entry = _chosen(member, entry_id)
    moved = list(entry.movements.select_related("lot"))
    draft = EntryDraft.start(member, press, UNDO, (entry.pk,), [movement.lot.item_id for movement in moved])
    if draft.repeated:
        return draft.repeated
    if Entry.objects.filter(reverses=entry).exists():
        raise Refusal("That was taken back already.")
    reversing.send(sender=Entry, entry=entry)
    if entry.verb == RECOUNT:
        _forget_recount(moved[0].lot, entry)
    if entry.verb == MERGE:
        unmix_cost(entry)
    lines = [Line(m.lot_id, m.kind, -m.amount, m.need) for m in moved]
    return draft.commit(lines, note=f"takes back: {entry.verb}", reverses=entry)


def _chosen(member: Member, entry_id: UUID | None) -> Entry:
    if entry_id is None:
        entry = last_entry(member)
        if entry is None:
            raise Refusal("There is nothing of today to take back.")
        return entry
    entry = Entry.objects.of(member.studio).filter(pk=entry_id).first()
    if entry is None:
        raise Http404
    if entry.reverses_id:
        raise Refusal("That was a taking back. Do the thing itself again instead.")
    return entry


def _forget_recount(lot: Lot, entry: Entry) -> None:
    """The lot's last recount is the newest one that still stands."""
    recounts = Entry.objects.filter(standing(), verb=RECOUNT, movements__lot=lot).exclude(pk=entry.pk)
    newest = recounts.order_by("-happened_at").first()
    Lot.objects.filter(pk=lot.pk).update(recounted_at=newest and newest.happened_at)
