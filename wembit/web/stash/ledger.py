"""The ledger: how an entry is written. Every change of an amount goes through an `EntryDraft`.

A draft locks the items it touches and then their lots, in order of id; it answers a press that was made before with its
first entry; it keeps each lot's book equal to the sum of its movements.
"""

from __future__ import annotations

import datetime as dt
import hashlib
from collections.abc import Iterable
from dataclasses import dataclass, field
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import Sum
from django.dispatch import Signal

from wembit.web import clock, numbers
from wembit.web.decimals import to_step
from wembit.web.errors import Refusal
from wembit.web.limits import AMOUNT
from wembit.web.studio.deeds import keep_deed, mark_taken_back
from wembit.web.studio.models import Deed

from .models import OPENING, RECOUNT, ZERO, Entry, Item, Lot, Movement

if TYPE_CHECKING:
    from wembit.web.studio.models import Member

reversing = Signal()  # before an entry is reversed, with it; plan/apps.py listens, and may raise `Refusal`
posted = Signal()  # inside the transaction, with the entry and its items' ids; plan/apps.py listens: promises follow

# an entry that was taken back is done again, by a new one: `old`, `new`, and each line with the one in its place;
# bench/apps.py and restock/apps.py listen: what was known by the old one is known by the new one
repeated = Signal()


@dataclass(frozen=True)
class Press:
    """One press of a button: its key, made where the button was drawn, and when it happened (None: now)."""

    key: str
    happened_at: dt.datetime | None = None


@dataclass(frozen=True)
class Line:
    """An amount that comes to a lot (plus) or leaves it (minus), in the item's unit."""

    lot_id: UUID
    kind: str
    amount: Decimal
    need: UUID | None = None


class Short(Refusal):
    """A lot holds less than was asked. The screen offers a recount."""

    def __init__(self, lot: Lot, asked: Decimal) -> None:
        self.lot, self.asked, self.left = lot, asked, lot.on_hand
        unit = {"g": "g", "pc": "pieces", "mm": "mm"}[lot.item.unit]
        super().__init__(
            f"The book says {lot.on_hand.normalize():f} {unit} of {lot.item.name} are left, and you take"
            f" {asked.normalize():f}. Take less, or weigh the bag again.",
            "amount",
        )


@dataclass
class EntryDraft:
    """An entry about to be written; `repeated` is the entry that this press wrote before."""

    member: Member
    press: Press
    verb: str
    content: str
    happened_at: dt.datetime
    items: list[UUID]
    repeated: Entry | None = None
    locked: dict[UUID, Item] = field(default_factory=dict)
    recounts: bool = field(default=False)

    @classmethod
    def start(cls, member: Member, press: Press, verb: str, content: tuple, items: Iterable[UUID]) -> EntryDraft:
        """Lock the items and look for an earlier entry of the same press.

        Raises `Refusal` when the key was used for something else, or when the time lies ahead.
        """
        if not press.key or len(press.key) > 64:
            raise Refusal("This page is too old to be used. Load it anew; what you entered is still here.")
        now = clock.now()
        happened_at = press.happened_at or now
        if happened_at > now + dt.timedelta(minutes=5):
            raise Refusal("That lies ahead. Give a time that has been.", "happened_at")
        if happened_at < clock.EARLIEST:
            raise Refusal("That is before 1900. Check the year.", "happened_at")
        item_ids = sorted(set(items))
        locked = {item.pk: item for item in Item.objects.filter(pk__in=item_ids).locked()}
        mark = hashlib.sha256(repr((verb, *map(str, content))).encode()).hexdigest()
        first = Entry.objects.of(member.studio).filter(client_key=press.key).first()
        if first and first.content != mark:
            raise Refusal("This button was pressed before with another amount. Look at the shelf, then try again.")
        return cls(member, press, verb, mark, happened_at, item_ids, first, locked)

    def commit(self, lines: list[Line], *, note: str = "", reverses: Entry | None = None) -> Entry:
        """Write the entry and its movements, and keep the lots' books. Raises `Short` below zero."""
        seen_until = reverses.happened_at if reverses else self.happened_at
        lots = {lot.pk: lot for lot in Lot.objects.filter(pk__in={line.lot_id for line in lines}).locked()}
        others = {lot.item_id for lot in lots.values()} - set(self.locked)
        items = self.locked | (Item.objects.in_bulk(others) if others else {})
        for lot in lots.values():
            lot.item = items[lot.item_id]
        lines = [*lines, *self._seen_by_recounts(lines, lots, seen_until)]
        changes = _changes(lines)
        for lot in lots.values():
            change = changes.get(lot.pk, ZERO)
            if lot.on_hand + change < 0:
                raise Short(lot, -change)
            if lot.waste and change < 0 and not reverses:
                raise Refusal("Nothing is taken from the waste.")
            if lot.on_hand + change >= AMOUNT:
                raise Refusal("That is more than a studio can hold. Check the number and its unit.", "amount")
            lot.on_hand += change
        entry = Entry(
            studio=self.member.studio,
            verb=self.verb,
            by=self.member,
            happened_at=self.happened_at,
            recorded_at=clock.now(),
            client_key=self.press.key,
            content=self.content,
            reverses=reverses,
            note=note[:200],
        )
        try:
            with transaction.atomic():
                entry.save(force_insert=True)
        except IntegrityError:
            raise Refusal("This was pressed twice at once. Look at the shelf, then try again.") from None
        entry.written = Movement.objects.bulk_create(
            Movement(
                studio=self.member.studio, entry=entry, lot_id=line.lot_id, kind=line.kind,
                amount=to_step(line.amount), need=line.need,
            )
            for line in lines
        )  # fmt: skip
        Lot.objects.bulk_update(lots.values(), ["on_hand"], batch_size=200)
        posted.send(sender=Entry, entry=entry, items=self.items)
        if reverses:
            mark_taken_back(self.member, reverses.pk)
        else:
            keep_deed(self.member, _told(entry, lines, lots), Deed.STOCK, entry.pk)
        return entry

    def _seen_by_recounts(self, lines: list[Line], lots: dict[UUID, Lot], moment: dt.datetime) -> list[Line]:
        """Lines back to the weight found, for lots recounted after the moment: that recount saw the effect."""
        back, changes = [], _changes(lines)
        for lot in lots.values():
            if lot.recounted_at and moment < lot.recounted_at and self.verb != RECOUNT:
                change = changes.get(lot.pk, ZERO)
                if change:
                    back.append(Line(lot.pk, RECOUNT, -change))
        return back


DONE = {
    "pull": "taken", "put back": "put back", RECOUNT: "weighed", "split": "split off", "merge": "laid together",
    "discard": "thrown away", "opening": "laid in", "received": "received", "blend": "carded", "taken in": "taken in",
    "start again": "given up as a try", "trim": "cut off", "break": "broken",
    "put aside": "put aside",
}  # fmt: skip


def _told(entry: Entry, lines: list[Line], lots: dict[UUID, Lot]) -> str:
    """What was done, in a maker's words, by the entry's first line; by its note where nothing was moved."""
    verb, studio = entry.verb, entry.studio
    done = DONE.get(verb, verb)
    if not lines:
        return f"{entry.note}, {done}" if entry.note else done
    item = lots[lines[0].lot_id].item
    amount = "" if verb == RECOUNT else " ".join(numbers.amount(abs(lines[0].amount), item.unit, studio)) + " "
    if not lines[0].amount and lines[0].kind == OPENING:
        amount = f"{numbers.unknown(item.unit)}, "
    more = f", and {len(lines) - 1} more" if len(lines) > 2 else ""
    return f"{item.name}, {amount}{done}{more}"


def _changes(lines: list[Line]) -> dict[UUID, Decimal]:
    """What the lines change of each lot."""
    found: dict[UUID, Decimal] = {}
    for line in lines:
        found[line.lot_id] = found.get(line.lot_id, ZERO) + line.amount
    return found


def book_at(lot: Lot, moment: dt.datetime) -> Decimal:
    """What the book says the lot held at that moment."""
    after = Movement.objects.filter(lot=lot, entry__happened_at__gt=moment).aggregate(total=Sum("amount"))["total"]
    return lot.on_hand - (after or ZERO)
