"""Taking back: the last deed of a member, or one of her journal, by the way that its kind is reversed."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction
from django.http import Http404

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.figures.actions.take_back_change import take_back_change
from wembit.web.row_deeds import put
from wembit.web.stash.actions.repeat import repeat
from wembit.web.stash.actions.undo import undo
from wembit.web.studio.deeds import last_deed, last_taken_back
from wembit.web.studio.models import MAKER, Deed, Member

if TYPE_CHECKING:
    from wembit.web.stash.ledger import Press

NOTHING = "There is nothing of today to take back."


@transaction.atomic
def take_back(member: Member, press: Press, deed_id: UUID | None = None) -> Deed:
    """Take back a deed, the member's last one of today where none is named. The same press again takes nothing more back.

    Raises `Refusal` for what cannot be taken back here or has been built on, `Http404` for another's deed.
    """
    member.must_be(MAKER)
    mine = Deed.objects.of(member.studio).filter(member=member)
    pressed = mine.filter(back_key=press.key).first() if press.key else None
    if pressed:
        return pressed
    deed = mine.filter(pk=deed_id).first() if deed_id else last_deed(member)
    if deed is None:
        if deed_id:
            raise Http404
        raise Refusal(NOTHING)
    if deed.kind == Deed.STOCK:
        undo(member, press=press, entry_id=deed.thing)
    elif deed.kind == Deed.FIGURE:
        take_back_change(member, deed)
    elif deed.kind == Deed.ROWS:
        _put(member, deed, back=True)
    else:
        raise Refusal(f"The last thing you did was this: {deed.words}. Take it back where you did it.")
    Deed.objects.filter(pk=deed.pk).update(back_key=press.key)
    return deed


def _put(member: Member, deed: Deed, *, back: bool) -> Deed:
    """The rows of a deed as they were, or as they became."""
    deed = Deed.objects.locked().get(pk=deed.pk)
    if (deed.taken_back_at is None) != back:
        raise Refusal("That was taken back already." if back else "That stands again already.")
    put(member, deed.rows or [], back=back)
    deed.taken_back_at = clock.now() if back else None
    deed.save(update_fields=["taken_back_at"])
    return deed


@transaction.atomic
def do_it_again(member: Member) -> Deed:
    """Do again what was taken back last. Raises `Refusal` when there is nothing, or something was done since."""
    member.must_be(MAKER)
    deed = last_taken_back(member)
    if deed is None:
        raise Refusal("There is nothing that was taken back last.")
    if deed.kind == Deed.ROWS:
        return _put(member, deed, back=False)
    if deed.kind == Deed.STOCK and deed.thing:
        repeat(member, deed.thing)
        return deed
    if deed.kind != Deed.FIGURE:
        raise Refusal(f"Do it where you did it: {deed.words}.")
    return take_back_change(member, deed, again=True)
