"""A needle broke: one less in its box, and its tip is found or still in the piece."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.bench.models import NeedleBreak, Piece
from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import DISCARDED, Entry, Item, Lot
from wembit.web.studio.models import MAKER, Member

BREAK = "break"


@transaction.atomic
def break_needle(
    member: Member, piece_id: UUID, item_id: UUID | None, *, found: bool, press: Press, layer_id: UUID | None = None
) -> Entry:
    """A needle of that kind (None: one that is on no shelf here) broke at a piece, at that layer of it. The same `press`
    repeated breaks once.

    Raises `Refusal` for what is no needle or a finished making, `Http404`.
    """
    member.must_be(MAKER)
    piece = get_object_or_404(Piece.objects.of(member.studio).select_related("making"), pk=piece_id)
    if piece.making.finished_at:
        raise Refusal("That making is finished.", "needle")
    item = get_object_or_404(Item.objects.of(member.studio), pk=item_id) if item_id else None
    if item and item.notion != "needle":
        raise Refusal(f"{item.name} is no needle. Choose one.", "needle")
    draft = EntryDraft.start(member, press, BREAK, (piece_id, item_id, found), [item.pk] if item else [])
    if draft.repeated:
        return draft.repeated
    box = Lot.objects.filter(item=item, on_hand__gte=1, waste=False).order_by("made_at").first() if item else None
    entry = draft.commit([Line(box.pk, DISCARDED, Decimal(-1))] if box else [], note=f"broke at {piece.name}")
    layer = piece.layers.filter(pk=layer_id).first() if layer_id else None
    NeedleBreak.objects.create(
        studio=member.studio, piece=piece, item=item, entry=entry, tip_found=found, role=layer.role if layer else ""
    )
    return entry
