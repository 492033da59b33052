"""What was taken back is done again, and a try, a cut, a broken needle, a clock that runs stand by the new entry."""

from __future__ import annotations

from wembit.web.bench.models import NeedleBreak, Spell, Trim, Try
from wembit.web.errors import Refusal
from wembit.web.stash.models import Entry

from .take_again import FINISHED


def give_up_again(old: Entry, new: Entry) -> bool:
    """What stood by the old entry stands by the new one; whether that was a try. Raises `Refusal` for a finished making."""
    tries = list(Try.objects.filter(entry=old).select_related("piece__making"))
    for given_up in tries:
        if given_up.piece.making.finished_at:
            raise Refusal(FINISHED)
        given_up.entry = new
        given_up.save(update_fields=["entry"])
    for trim in Trim.objects.filter(entry=old).select_related("layer__piece__making"):
        if trim.layer.piece.making.finished_at:
            raise Refusal(FINISHED)
        trim.entry = new
        trim.save(update_fields=["entry"])
    NeedleBreak.objects.filter(entry=old).update(entry=new)
    Spell.objects.filter(entry=old).update(entry=new)
    return bool(tries)
