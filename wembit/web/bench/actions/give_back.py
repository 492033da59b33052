"""Put back what a piece did not need."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web import numbers
from wembit.web.bench.models import Take
from wembit.web.bench.queries import layer_of, taken_by_layer
from wembit.web.errors import Refusal
from wembit.web.stash.actions.put_back import put_back
from wembit.web.stash.ledger import Press
from wembit.web.stash.models import ZERO, Entry
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def give_back(member: Member, layer_id: UUID, lot_id: UUID, amount: Decimal, *, press: Press) -> Entry:
    """Return `amount` of what was taken for a layer into a lot. Raises `Refusal` for more than was taken, `Http404`."""
    member.must_be(MAKER)
    layer = layer_of(member.studio, layer_id)
    earlier = Entry.objects.of(member.studio).filter(client_key=press.key).first()
    taken = taken_by_layer([layer.piece.making_id]).get(layer.pk, ZERO)
    if amount > taken and earlier is None:
        grams = " ".join(numbers.grams(taken, member.studio))
        raise Refusal(f"Only {grams} were taken for this. Put back that much or less.", "amount")
    entry = put_back(member, lot_id, amount, press=press, need=layer.need)
    for movement in entry.movements.filter(lot=lot_id, kind="returned"):
        Take.objects.get_or_create(movement=movement, defaults={"studio": member.studio, "layer": layer})
    return entry
