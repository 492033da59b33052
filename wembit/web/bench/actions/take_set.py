"""Take for all pieces of a part at once: one amount, in shares as large as what each of them still takes."""

from __future__ import annotations

from decimal import Decimal
from fractions import Fraction
from uuid import UUID

from django.db import transaction

from wembit.core.portions import rounded
from wembit.web.bench.models import PLANNED, WEIGHED, Piece
from wembit.web.bench.queries import LayerLine, set_lines
from wembit.web.decimals import to_step
from wembit.web.errors import Refusal
from wembit.web.stash.actions.pull import PULL
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import PULLED, Entry
from wembit.web.studio.models import Member

from .take import layer_in_hand
from .take_thing import note_takes
from .work_on import work_on


@transaction.atomic
def take_set(member: Member, layer_id: UUID, lot_id: UUID, amount: Decimal, *, press: Press) -> Entry:
    """Pull `amount` from a lot for this layer of every piece of the part. The same `press` repeated takes once.

    Raises `Short` when the lot holds less, `Refusal` when the making is finished, `Http404`.
    """
    layer = layer_in_hand(member, layer_id, lot_id)
    if amount <= 0:
        raise Refusal("Take more than nothing.", "amount")
    draft = EntryDraft.start(member, press, PULL, ("set", layer_id, lot_id, amount), [layer.item_id])
    if draft.repeated:
        return draft.repeated
    lines = set_lines(layer)
    shares = [(line.layer, grams) for line, grams in zip(lines, shared_out(amount, lines), strict=True) if grams > 0]
    entry = draft.commit([Line(lot_id, PULLED, -grams, layer.need) for _, grams in shares])
    note_takes(entry, [each for each, _ in shares])
    Piece.objects.filter(pk__in=[each.piece_id for each, _ in shares], state=PLANNED).update(state=WEIGHED)
    work_on(member, layer.piece, entry)
    return entry


def shared_out(amount: Decimal, lines: list[LayerLine]) -> list[Decimal]:
    """The amount in steps of 0.001 g, by what each still takes, or by what each takes where all have enough."""
    wanted = [line.left for line in lines]
    if not any(wanted):
        wanted = [line.grams.p50 for line in lines]
    whole = sum(map(Fraction, wanted)) or Fraction(1)
    in_tenths = rounded(float(amount) * 10, [Fraction(grams) / whole for grams in wanted])  # of its steps of 0.01 g
    return [to_step(grams / 10) for grams in in_tenths]
