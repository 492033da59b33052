"""Take eyes, wire or a fitting for a making, all that is still to take of it, in one press."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web import numbers
from wembit.web.bench.models import MakingThing, PieceLayer, Take, ThingTake
from wembit.web.bench.queries import sources, thing_of
from wembit.web.errors import Refusal
from wembit.web.stash.actions.pull import PULL
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.models import PULLED, RETURNED, ZERO, Entry, standing
from wembit.web.studio.models import MAKER, Member

KNOW = {"g": "Weigh the bag", "mm": "Measure what there is", "pc": "Count what there is"}


@transaction.atomic
def take_thing(member: Member, thing_id: UUID, *, press: Press) -> Entry:
    """Pull what the making still needs of it, from what is promised to it and from what is free. The same press takes once.

    Raises `Refusal` where it is taken already, where there is too little, or when the making is finished; `Http404`.
    """
    member.must_be(MAKER)
    thing = thing_of(member.studio, thing_id).thing
    draft = EntryDraft.start(member, press, PULL, (thing_id,), [thing.item_id])
    if draft.repeated:
        return draft.repeated
    left = thing_of(member.studio, thing_id).left
    if thing.making.finished_at:
        raise Refusal("That making is finished.")
    if not left:
        raise Refusal("That is taken already. Put it back first.")
    lines = lines_for(thing, left, anyway=False)
    entry = draft.commit(lines)
    note_takes(entry, [thing] * len(lines))
    return entry


@transaction.atomic
def give_thing_back(member: Member, thing_id: UUID, *, press: Press) -> Entry:
    """Return all that was taken of it into the bags that it came from. Raises as `take_thing` does."""
    member.must_be(MAKER)
    thing = thing_of(member.studio, thing_id).thing
    draft = EntryDraft.start(member, press, "put back", (thing_id,), [thing.item_id])
    if draft.repeated:
        return draft.repeated
    if thing.making.finished_at:
        raise Refusal("That making is finished.")
    taken: dict[UUID, Decimal] = {}
    for take in ThingTake.objects.filter(standing("movement__entry"), thing=thing).select_related("movement"):
        taken[take.movement.lot_id] = taken.get(take.movement.lot_id, ZERO) - take.movement.amount
    lines = [Line(lot, RETURNED, amount, thing.need) for lot, amount in taken.items() if amount > 0]
    if not lines:
        raise Refusal("Nothing was taken of it.")
    entry = draft.commit(lines)
    note_takes(entry, [thing] * len(lines))
    return entry


def lines_for(
    wanted: PieceLayer | MakingThing, amount: Decimal, gone: dict[UUID, Decimal] | None = None, *, anyway: bool
) -> list[Line]:
    """From which bags so much of it comes, those promised to it first; `gone`: what lines before took of each bag, these are
    added; `anyway`: also from what is promised to others. Raises `Refusal` where there is too little.
    """
    lines, left, gone = [], amount, {} if gone is None else gone
    for source in sources(wanted):
        there = (source.lot.on_hand if anyway else source.free) - gone.get(source.lot.pk, ZERO)
        part = min(left, max(there, ZERO))
        if part > 0:
            gone[source.lot.pk] = gone.get(source.lot.pk, ZERO) + part
            lines.append(Line(source.lot.pk, PULLED, -part, wanted.need))
            left -= part
    if left > 0:
        item, studio = wanted.item, wanted.studio
        has, takes = (" ".join(numbers.amount(some, item.unit, studio)) for some in (amount - left, amount))
        free = "in the book" if anyway else "free"
        raise Refusal(
            f"{item.name}: {has} {free}, and it takes {takes}. {KNOW[item.unit]}, or lay more in, first.", "unweighed"
        )
    return lines


def note_takes(entry: Entry, owners: Sequence[PieceLayer | MakingThing], *, measured: bool = True) -> None:
    """Write down for which layer, or which thing, each line of an entry just written was, and whether it was weighed."""
    for movement, owner in zip(entry.written, owners, strict=False):  # a recount's lines come after those of the press
        if isinstance(owner, PieceLayer):
            Take.objects.create(studio=owner.studio, movement=movement, layer=owner, measured=measured)
        else:
            ThingTake.objects.create(studio=owner.studio, movement=movement, thing=owner)
