"""Put wool aside for a later step of a making, and take it in use."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web import numbers
from wembit.web.bench.models import PieceLayer, Take
from wembit.web.bench.queries import kept_takes, last_take, layer_of, taken_by_layer
from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import PULLED, RETURNED, ZERO, Entry
from wembit.web.stash.queries import lot_of, promises_broken_by
from wembit.web.studio.models import MAKER, Member

from .take import layer_in_hand
from .take_thing import note_takes

ASIDE = "put aside"


@transaction.atomic
def put_aside(member: Member, from_id: UUID, for_id: UUID, lot_id: UUID, amount: Decimal, *, press: Press) -> Entry:
    """`amount` g of what was taken for one layer, or of the bag where nothing was, are kept for another layer of the making.

    The same `press` repeated puts aside once. Raises `Short`, `Refusal` for more than was taken, for another wool and where a
    promise would be broken, `Http404`.
    """
    layer, later = layer_in_hand(member, from_id, lot_id), layer_of(member.studio, for_id)
    if later.piece.making_id != layer.piece.making_id or later.item_id != layer.item_id or later.pk == layer.pk:
        raise Refusal("Choose a later step that takes the same wool.", "later")
    draft = EntryDraft.start(member, press, ASIDE, (from_id, for_id, lot_id, amount), [layer.item_id])
    if draft.repeated:
        return draft.repeated
    if amount <= 0:
        raise Refusal("Put aside more than nothing.", "aside")
    taken, last = taken_by_layer([layer.piece.making_id]).get(layer.pk, ZERO), last_take(layer)
    if amount > taken > 0:
        grams = " ".join(numbers.grams(taken, member.studio))
        raise Refusal(f"Only {grams} were taken for this. Take more first, or put less aside.", "aside")
    note = f"for {later.piece.name}"
    if taken and last:
        lot = last.movement.lot_id
        lines = [Line(lot, RETURNED, amount, layer.need), Line(lot, PULLED, -amount, later.need)]
        owners = [layer, later]
    else:
        _unpromised(lot_id, amount, later, member)
        lines, owners = [Line(lot_id, PULLED, -amount, later.need)], [later]
    entry = draft.commit(lines, note=note)
    note_takes(entry, owners)
    Take.objects.filter(movement__entry=entry, layer=later).update(aside=True)
    return entry


def _unpromised(lot_id: UUID, amount: Decimal, later: PieceLayer, member: Member) -> None:
    broken = promises_broken_by(lot_of(member.studio, lot_id), amount, later.need)
    if broken:
        raise Refusal(f"That is promised to {broken[0].whose}. Put less aside.", "aside")


@transaction.atomic
def use_aside(member: Member, layer_id: UUID) -> PieceLayer:
    """What lies aside for a layer is in use. Raises `Refusal` where nothing does, `Http404`."""
    member.must_be(MAKER)
    layer = layer_of(member.studio, layer_id)
    if not kept_takes().filter(layer=layer, aside=True).update(aside=False):
        raise Refusal("Nothing lies aside for it.", "aside")
    return layer
