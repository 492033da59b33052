"""Take a stand-in back: what has not been taken of it is needed of the old fibre again."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.plan.models import StandIn
from wembit.web.studio.models import MAKER, Member

from .needs import write_needs
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
    reserve(member.studio, write_needs(made.project) | {made.old_id, made.new_id})
    return made
