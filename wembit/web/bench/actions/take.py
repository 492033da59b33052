"""Take wool for a layer of a piece."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.bench.models import PLANNED, WEIGHED, Piece, PieceLayer, Take
from wembit.web.bench.queries import layer_and_lot
from wembit.web.errors import Refusal
from wembit.web.stash.actions.pull import pulled
from wembit.web.stash.ledger import Press
from wembit.web.stash.models import Entry
from wembit.web.studio.models import MAKER, Member

from .work_on import work_on


@transaction.atomic
def take(member: Member, layer_id: UUID, lot_id: UUID, amount: Decimal, *, press: Press) -> Entry:
    """Pull `amount` from a lot for a layer, and say so. The same `press` repeated takes once.

    Raises `Short` when the lot holds less, `Refusal` when the making is finished, `Http404`.
    """
    layer = layer_in_hand(member, layer_id, lot_id)
    entry = pulled(member, lot_id, amount, layer.item_id, press=press, need=layer.need)
    if hasattr(entry, "written"):  # a press that is repeated has written nothing
        Take.objects.create(studio=member.studio, movement=entry.written[0], layer=layer)
    Piece.objects.filter(pk=layer.piece_id, state=PLANNED).update(state=WEIGHED)
    work_on(member, layer.piece, entry)
    return entry


def layer_in_hand(member: Member, layer_id: UUID, lot_id: UUID) -> PieceLayer:
    """The layer of a making in hand for which that bag holds the wool. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    layer, in_lot = layer_and_lot(member.studio, layer_id, lot_id)
    if layer.piece.making.finished_at:
        raise Refusal("That making is finished. Begin another one, or take the wool on the shelf.", "amount")
    if in_lot != layer.item_id:
        raise Refusal(f"That bag is no {layer.item.name}. Choose another bag.", "lot")
    return layer
