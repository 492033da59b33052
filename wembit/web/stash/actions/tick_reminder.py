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
    found = get_object_or_404(Reminder.objects.of(member.studio).locked(), pk=reminder_id)
    if not found.every_days:
        found.delete()
        return None
    found.seen_on = clock.today(member.studio)
    found.due = found.seen_on + dt.timedelta(days=found.every_days)
    found.save(update_fields=["seen_on", "due"])
    return found
