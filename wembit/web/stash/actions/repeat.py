"""Do an entry that was taken back again."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press, repeated
from wembit.web.stash.models import RECOUNT, Entry, Lot
from wembit.web.studio.models import MAKER, Member

from .merge import MERGE, mix_cost


@transaction.atomic
def repeat(member: Member, entry_id: UUID) -> Entry:
    """A new entry like the one that was taken back, at the moment of the first: the same bags, amounts and needs, and whatever
    was known by its lines. The same press again does it once.

    Raises `Refusal` where it stands, `Short` where a bag holds less by now, `Http404`.
    """
    member.must_be(MAKER)
    entry = get_object_or_404(Entry.objects.of(member.studio), pk=entry_id)
    reversal = Entry.objects.filter(reverses=entry).first()
    if reversal is None:
        raise Refusal("That stands already.")
    lines = list(entry.movements.select_related("lot").order_by("pk"))
    if entry.verb != RECOUNT:
        lines = [line for line in lines if line.kind != RECOUNT]  # what recounts had seen is worked out anew
    press = Press(f"again-{reversal.pk}", entry.happened_at)
    draft = EntryDraft.start(member, press, entry.verb, ("again", entry.pk), [line.lot.item_id for line in lines])
    if draft.repeated:
        return draft.repeated
    new = draft.commit([Line(line.lot_id, line.kind, line.amount, line.need) for line in lines], note=entry.note)
    if entry.verb == RECOUNT:
        Lot.objects.filter(pk=lines[0].lot_id).update(recounted_at=entry.happened_at)
    if entry.verb == MERGE:
        mix_cost(new)
    repeated.send(sender=Entry, old=entry, new=new, lines=list(zip(lines, new.written, strict=False)))
    return new
