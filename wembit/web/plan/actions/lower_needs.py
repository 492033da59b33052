"""Let a need shrink by what a finished making did not take."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.plan.models import Need
from wembit.web.studio.models import MAKER, Member

from .reserve import reserve


@transaction.atomic
def lower_needs(member: Member, by: dict[UUID, Decimal]) -> None:
    """Lower (or, when more was taken than planned, raise) each need by that many grams; the range keeps its shape."""
    member.must_be(MAKER)
    needs = list(Need.objects.of(member.studio).filter(pk__in=by).locked())
    for need in needs:
        middle = max(Decimal(0), need.p50 - by[need.pk])
        share = middle / need.p50 if need.p50 else Decimal(0)
        need.p10, need.p50, need.p90 = need.p10 * share, middle, need.p90 * share
        need.save(update_fields=["p10", "p50", "p90"])
    reserve(member.studio, {need.item_id for need in needs})
