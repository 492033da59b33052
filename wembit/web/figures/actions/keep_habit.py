"""Keep how long a loose end this studio leaves at a join."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.editing.following import follow
from wembit.web.figures.queries import figure_of, newest_version
from wembit.web.figures.to_core.estimating import LOOSE_END
from wembit.web.studio.models import MAKER, Member, Studio


@transaction.atomic
def keep_habit(member: Member, figure_id: UUID, loose_end_mm: float) -> Studio:
    """The studio's loose end in mm, for every part that says nothing of its own. Raises `Http404`."""
    member.must_be(MAKER)
    figure = figure_of(member.studio, figure_id)
    studio = Studio.objects.select_for_update().get(pk=member.studio_id)
    studio.habits = {**studio.habits, LOOSE_END: loose_end_mm}
    studio.save(update_fields=["habits"])
    version = newest_version(figure)
    if version.frozen_at is None:
        follow(version)
    return studio
