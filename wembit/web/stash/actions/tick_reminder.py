"""A dated look at the wool was done."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.stash.models import Reminder
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def tick_reminder(member: Member, reminder_id: UUID) -> Reminder | None:
    """It was looked at today: the next time is so many days on; one that was for once is gone. Raises `Http404`."""
    member.must_be(MAKER)
    reminder = get_object_or_404(Reminder.objects.of(member.studio).locked(), pk=reminder_id)
    if not reminder.every_days:
        reminder.delete()
        return None
    reminder.seen_on = clock.today(member.studio)
    reminder.due = reminder.seen_on + dt.timedelta(days=reminder.every_days)
    reminder.save(update_fields=["seen_on", "due"])
    return reminder
