"""Keep how long a loose end the studio leaves for a join."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.editing.door import Editing, leave, lock_figure
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import newest_version
from wembit.web.figures.to_core.estimating import LOOSE_END
from wembit.web.studio.models import MAKER, Member, Studio


@transaction.atomic
def keep_habit(member: Member, figure_id: UUID, loose_end_mm: float) -> Studio:
    """The studio's loose end in mm, for every part of every figure that says nothing of its own. Raises `Http404`."""
    member.must_be(MAKER)
    lock_figure(member.studio, figure_id)
    figures = list(Figure.objects.of(member.studio).locked())
    studio = Studio.objects.select_for_update().get(pk=member.studio_id)
    studio.habits = {**studio.habits, LOOSE_END: loose_end_mm}
    studio.save(update_fields=["habits"])
    for figure in figures:
        version = newest_version(figure)
        if version.frozen_at is None:
            leave(Editing(version), [])
    return studio
