"""Give a piece up and start it again: what was felted goes to a bag of scrap or to the waste, and is counted."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.bench.models import PLANNED, REASONS, Piece, Try
from wembit.web.bench.queries import kept_takes
from wembit.web.errors import Refusal
from wembit.web.plan.actions.needs import write_needs
from wembit.web.plan.actions.reserve import reserve
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import TRIMMED, ZERO, Entry
from wembit.web.studio.models import MAKER, Member

from .scrap_bag import scrap_bag

START_AGAIN = "start again"


@transaction.atomic
def start_again(member: Member, piece_id: UUID, where: str | UUID, *, press: Press, reason: str = "") -> Entry:
    """All that was taken for a piece, of every layer, is a try from now on; the piece is planned again, with its wool. What
    only lies aside for it stays there.

    where: a bag of scrap by its id, "new" for a new one in its colour, "waste". The same `press` repeated gives up once.
    Raises `Refusal` where nothing was taken or the making is finished, `Http404`.
    """
    member.must_be(MAKER)
    pieces = Piece.objects.of(member.studio).select_related("making__project")
    piece = get_object_or_404(pieces, pk=piece_id)
    if piece.making.finished_at:
        raise Refusal("That making is finished.")
    if reason and reason not in REASONS:
        raise Refusal("Choose a reason, or none.", "reason")
    layers = list(piece.layers.select_related("item"))
    content = (piece_id, where, reason)
    if repeated := EntryDraft.start(member, press, START_AGAIN, content, []).repeated:
        return repeated
    lot = scrap_bag(member, where, layers[0])
    items = [layer.item_id for layer in layers] + ([lot.item_id] if lot else [])
    draft = EntryDraft.start(member, press, START_AGAIN, content, items)
    if draft.repeated:
        return draft.repeated
    takes = list(kept_takes().filter(layer__piece=piece, aside=False).select_related("movement"))
    grams = -sum((take.movement.amount for take in takes), ZERO)
    if grams <= 0:
        raise Refusal("Nothing was taken for it yet.", "where")
    entry = draft.commit([Line(lot.pk, TRIMMED, grams)] if lot else [], note=f"{piece.name}: {REASONS.get(reason, '')}")
    given_up = Try.objects.create(studio=member.studio, piece=piece, entry=entry, lot=lot, grams=grams, reason=reason)
    for take in takes:
        take.given_up = given_up
        take.save(update_fields=["given_up"])
    Piece.objects.filter(pk=piece.pk).update(state=PLANNED)
    if piece.making.project:
        reserve(member.studio, write_needs(piece.making.project))
    return entry
