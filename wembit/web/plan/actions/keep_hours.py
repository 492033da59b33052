"""Keep the hours that makers have at the bench."""

from __future__ import annotations

from collections.abc import Mapping
from uuid import UUID

from django.db import transaction

from wembit.core.contract.requests import WEEK
from wembit.web.errors import Refusal
from wembit.web.plan.models import MakerHours
from wembit.web.studio.models import MAKER, Member
from wembit.web.studio.queries import maker_of

MOST_HOURS = 15.0


@transaction.atomic
def keep_hours(member: Member, hours: Mapping[UUID, Mapping[str, float]]) -> None:
    """Hours by weekday of each maker; 0 on all days: nobody says. Raises `Refusal`; `Http404` for who is no maker here."""
    member.must_be(MAKER)
    for maker_id, week in hours.items():
        maker = maker_of(member.studio, maker_id)
        for day in WEEK:
            if not 0 <= week[day] <= MOST_HOURS:
                raise Refusal(f"A day has 0 to {MOST_HOURS:.0f} hours at the bench.", f"{day}_{maker_id}")
        kept = {day: float(week[day]) for day in WEEK}
        if any(kept.values()):
            MakerHours.objects.update_or_create(member=maker, defaults={"studio": member.studio, "hours": kept})
        else:
            MakerHours.objects.filter(member=maker).delete()
