"""Accept an answer to a shortage: the plan moves its needs, makings in hand follow, all of it in one transaction."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.bench.actions.follow_stand_in import follow_stand_in
from wembit.web.plan.actions.lay_under import lay_under
from wembit.web.plan.actions.needs import write_needs
from wembit.web.plan.actions.reserve import reserve
from wembit.web.plan.actions.stand_in import stand_in
from wembit.web.plan.actions.take_back_stand_in import take_back_stand_in
from wembit.web.plan.models import StandIn
from wembit.web.studio.models import Member


@transaction.atomic
def use_instead(
    member: Member, project_id: UUID, old_id: UUID, new_id: UUID, *, seen: bool, count: int, key: str = ""
) -> StandIn:
    """Another wool in the last `count` makings. Raises `Refusal`, `Http404`."""
    return _followed(stand_in(member, project_id, old_id, new_id, seen=seen, count=count, key=key))


@transaction.atomic
def lay_thinly(member: Member, project_id: UUID, old_id: UUID, new_id: UUID, *, count: int, key: str = "") -> StandIn:
    """A thin layer of another wool under the covers of the last `count` makings. Raises `Refusal`, `Http404`."""
    return _followed(lay_under(member, project_id, old_id, new_id, count=count, key=key))


@transaction.atomic
def take_answer_back(member: Member, stand_in_id: UUID) -> StandIn:
    """What has not been taken of it is needed of the old wool again. Raises `Refusal`, `Http404`."""
    return _followed(take_back_stand_in(member, stand_in_id))


def _followed(made: StandIn) -> StandIn:
    if not made.repeated:  # the same press again has moved nothing
        follow_stand_in(made)
        reserve(made.studio, write_needs(made.project))
    return made
