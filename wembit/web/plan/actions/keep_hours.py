"""Keep the hours that a studio has at its bench."""

from __future__ import annotations

from collections.abc import Mapping

from django.db import transaction

from wembit.core.contract.requests import WEEK
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member, Studio

HOURS = "hours"
MOST_HOURS = 15.0


@transaction.atomic
def keep_hours(member: Member, hours: Mapping[str, float]) -> Studio:
    """Hours by weekday, all hands together; 0 on all of them: nobody says. Raises `Refusal`."""
    member.must_be(MAKER)
    for day in WEEK:
        if not 0 <= hours[day] <= MOST_HOURS:
            raise Refusal(f"A day has 0 to {MOST_HOURS:.0f} hours at the bench.", day)
    studio = Studio.objects.select_for_update().get(pk=member.studio_id)
    kept = {day: float(hours[day]) for day in WEEK}
    studio.habits = {**studio.habits, HOURS: kept if any(kept.values()) else {}}
    studio.save(update_fields=["habits"])
    return studio
