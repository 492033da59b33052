"""Keep what an hour is worth and the mark-up of a studio."""

from __future__ import annotations

from decimal import Decimal

from django.db import transaction

from wembit.web.costs.figure_cost import MARK_UP, RATE
from wembit.web.studio.models import OWNER, Member, Studio


@transaction.atomic
def keep_rates(member: Member, rate: Decimal, mark_up: Decimal) -> Studio:
    """Money an hour and percent on the cost. Raises `PermissionDenied` for who is no owner."""
    member.must_be(OWNER)
    studio = Studio.objects.select_for_update().get(pk=member.studio_id)
    studio.habits = {**studio.habits, RATE: str(rate), MARK_UP: str(mark_up)}
    studio.save(update_fields=["habits"])
    return studio
