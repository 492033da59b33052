"""Cut something off: a coat that was trimmed, an end that was too long."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web import numbers
from wembit.web.bench.models import Trim
from wembit.web.bench.queries import layer_of, taken_by_layer, trimmed_by_layer
from wembit.web.errors import Refusal
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import TRIMMED, ZERO, Entry
from wembit.web.studio.models import MAKER, Member

from .scrap_bag import scrap_bag

TRIM = "trim"


@transaction.atomic
def trim_off(member: Member, layer_id: UUID, amount: Decimal, where: str | UUID, *, press: Press) -> Entry:
    """`amount` g of what was taken for a layer are cut off and go to a bag of scrap, a new one, or the waste.

    The same `press` repeated trims once. Raises `Refusal` for more than is on it, `Http404`.
    """
    member.must_be(MAKER)
    layer = layer_of(member.studio, layer_id)
    if layer.piece.making.finished_at:
        raise Refusal("That making is finished.", "trimmed")
    content = (layer_id, amount, where)
    if repeated := EntryDraft.start(member, press, TRIM, content, []).repeated:
        return repeated
    lot = scrap_bag(member, where, layer)
    draft = EntryDraft.start(member, press, TRIM, content, [layer.item_id, *([lot.item_id] if lot else [])])
    if draft.repeated:
        return draft.repeated
    making = [layer.piece.making_id]
    there = taken_by_layer(making).get(layer.pk, ZERO) - trimmed_by_layer(making).get(layer.pk, ZERO)
    if amount <= 0:
        raise Refusal("Trim off more than nothing.", "trimmed")
    if amount > there:
        raise Refusal(
            f"Only {' '.join(numbers.grams(there, member.studio))} are on it. Weigh what you cut off again.", "trimmed"
        )
    entry = draft.commit([Line(lot.pk, TRIMMED, amount)] if lot else [], note=f"{layer.piece.name}, cut off")
    Trim.objects.create(studio=member.studio, layer=layer, entry=entry, lot=lot, grams=amount)
    return entry
