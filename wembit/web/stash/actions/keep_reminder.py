"""Keep a dated look at the wool: for moths, for damp, whatever comes round."""

from __future__ import annotations

import datetime as dt

from django.db import transaction

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.stash.models import Reminder
from wembit.web.studio.models import MAKER, Member

from .name_drawer import drawer_called

MOST_DAYS = 1100


@transaction.atomic
def keep_reminder(member: Member, words: str, due: dt.date, *, every_days: int = 0, drawer: str = "") -> Reminder:
    """A look at a drawer, or at all of the wool, on a day, and again every so many days. Raises `Refusal`."""
    member.must_be(MAKER)
    words = " ".join(words.split())[:80]
    if not words:
        raise Refusal("Say what to look for: moths, damp, a cat.", "words")
    if due < clock.today(member.studio):
        raise Refusal("That day lies behind. Choose today or later.", "due")
    if not 0 <= every_days <= MOST_DAYS:
        raise Refusal(f"Write whole days, 0 (once) to {MOST_DAYS}.", "every_days")
    return Reminder.objects.create(
        studio=member.studio, words=words, due=due, every_days=every_days, drawer=drawer_called(member, drawer)
    )
