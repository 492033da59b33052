"""Take wool for a layer of a piece."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.bench.models import PLANNED, WEIGHED, Piece, PieceLayer, Take
from wembit.web.bench.queries import layer_of
from wembit.web.errors import Refusal
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.ledger import Press
from wembit.web.stash.models import Entry
from wembit.web.stash.queries import item_of_lot
from wembit.web.studio.models import MAKER, Member

from .work_on import work_on


@transaction.atomic
def take(member: Member, layer_id: UUID, lot_id: UUID, amount: Decimal, *, press: Press) -> Entry:
    """Pull `amount` from a lot for a layer, and say so. The same `press` repeated takes once.

    Raises `Short` when the lot holds less, `Refusal` when the making is finished, `Http404`.
    """
    layer = layer_in_hand(member, layer_id, lot_id)
    entry = pull(member, lot_id, amount, press=press, need=layer.need, item=layer.item_id)
    if hasattr(entry, "written"):  # a press that is repeated has written nothing
        Take.objects.create(studio=member.studio, movement=entry.written[0], layer=layer)
    Piece.objects.filter(pk=layer.piece_id, state=PLANNED).update(state=WEIGHED)
    work_on(member, layer.piece, entry)
    return entry


def layer_in_hand(member: Member, layer_id: UUID, lot_id: UUID) -> PieceLayer:
    """The layer of a making in hand for which that bag holds the wool. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    layer = layer_of(member.studio, layer_id)
    if layer.piece.making.finished_at:
        raise Refusal("That making is finished. Begin another one, or take the wool on the shelf.", "amount")
    if item_of_lot(member.studio, lot_id) != layer.item_id:
        raise Refusal(f"That bag is no {layer.item.name}. Choose another bag.", "lot")
    return layer
