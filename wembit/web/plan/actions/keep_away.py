"""Days on which a maker is not at the bench."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.plan.models import Away
from wembit.web.studio.models import MAKER, Member
from wembit.web.studio.queries import maker_of

MOST_DAYS, MOST_ROWS = 366, 60  # of one time away; of a maker, ahead


@transaction.atomic
def go_away(member: Member, maker_id: UUID, first: dt.date, last: dt.date | None = None) -> Away:
    """She is away from one day to another, both among them; without a last day on that one alone. Raises `Refusal`,
    `Http404`.
    """
    member.must_be(MAKER)
    maker, last = maker_of(member.studio, maker_id), last or first
    if last < clock.today(member.studio):
        raise Refusal("These days lie behind. Choose today or later.", "last")
    if last < first:
        raise Refusal("It ends before it begins. Choose a later last day.", "last")
    if (last - first).days >= MOST_DAYS:
        raise Refusal("That is more than a year. Take hours off the week instead.", "last")
    if Away.objects.of(member.studio).filter(member=maker, last__gte=clock.today(member.studio)).count() >= MOST_ROWS:
        raise Refusal(f"More than {MOST_ROWS} times away are not kept. Take one back first.", "first")
    return Away.objects.create(studio=member.studio, member=maker, first=first, last=last)


@transaction.atomic
def come_back(member: Member, away_id: UUID) -> None:
    """She is there on those days after all. Raises `Http404`."""
    member.must_be(MAKER)
    get_object_or_404(Away.objects.of(member.studio), pk=away_id).delete()
