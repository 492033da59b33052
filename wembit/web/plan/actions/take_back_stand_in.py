"""Take a stand-in back: what has not been taken of it is needed of the old fibre again."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.decimals import decimal
from wembit.web.errors import Refusal
from wembit.web.plan.models import RANGE, Need, StandIn
from wembit.web.plan.queries import open_needs
from wembit.web.studio.models import MAKER, Member

from .reserve import reserve


@transaction.atomic
def take_back_stand_in(member: Member, stand_in_id: UUID) -> StandIn:
    """Move back what is left of it. Raises `Refusal` where it was taken back already, `Http404`."""
    member.must_be(MAKER)
    made = get_object_or_404(StandIn.objects.of(member.studio).locked(), pk=stand_in_id)
    if made.taken_back_at:
        raise Refusal("That was taken back already.")
    made.taken_back_at = clock.now()
    made.save(update_fields=["taken_back_at"])
    needs = open_needs(member.studio, project=made.project_id, item=made.new_id, seen=made.new_seen)
    old = Need.objects.filter(project=made.project_id, item=made.old_id, seen=made.seen).first()
    if needs and old:
        need, ratio = needs[0], decimal(made.ratio)
        back = min(need.left, made.moved * ratio)
        share = back / need.p50 if need.p50 else Decimal(0)
        for bound in RANGE:
            part = getattr(need, bound) * share
            setattr(need, bound, getattr(need, bound) - part)
            setattr(old, bound, getattr(old, bound) + part / ratio)
        old.save(update_fields=RANGE)
        need.save(update_fields=RANGE)
        if not need.p50 and not need.taken:
            need.delete()
    reserve(member.studio, {made.old_id, made.new_id})
    return made
