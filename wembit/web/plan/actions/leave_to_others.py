"""Who makes a figure, and who leaves it to the others."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.plan.models import LeftToOthers
from wembit.web.plan.queries import project_of
from wembit.web.studio.models import MAKER, Member, Studio
from wembit.web.studio.queries import maker_of, makers


@transaction.atomic
def leave_to_others(member: Member, project_id: UUID, maker_id: UUID, *, makes: bool) -> None:
    """That maker makes the project's figure, or leaves it to the others. Raises `Refusal` for the last who makes it,
    `Http404`.
    """
    member.must_be(MAKER)
    studio = Studio.objects.select_for_update().get(pk=member.studio_id)
    figure = project_of(studio, project_id).colourway.version.figure
    maker = maker_of(studio, maker_id)
    left = LeftToOthers.objects.of(studio).filter(figure=figure)
    if makes:
        left.filter(member=maker).delete()
        return
    others = {other.pk for other in makers(studio)} - {maker.pk} - set(left.values_list("member", flat=True))
    if not others:
        raise Refusal(f"Nobody would be left who makes {figure.name}.")
    LeftToOthers.objects.get_or_create(studio=studio, member=maker, figure=figure)
