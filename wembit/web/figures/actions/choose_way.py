"""Choose how the studio, or one figure, works."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.core.craft.schools import QUESTIONS
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import SCHOOL, Version
from wembit.web.figures.queries import figure_of, newest_version
from wembit.web.studio.models import MAKER, Member, Studio


def choose_way(
    member: Member, figure_id: UUID, question: str, way: str, *, only_here: bool = False, part: str = ""
) -> Version:
    """Keep a way as the studio's, which then holds for every figure that says nothing else, as this figure's own, or as
    that of one part of it. Raises `Refusal`, `Http404`.
    """
    member.must_be(MAKER)
    if question not in QUESTIONS or way not in QUESTIONS[question].ways:
        raise Refusal("Choose one of the ways.", "way")
    if not part and not only_here:
        return _of_the_studio(member, figure_id, question, way)
    with editing(member, figure_id, "a way of working") as edit:
        school = edit.version.school
        if part:
            edit.part(part)
            parts = school.get("parts", {})
            own: dict[str, object] = {"parts": {**parts, part: {**parts.get(part, {}), question: way}}}
        else:
            own = {question: way}
        edit.version.school = {**school, **own}
        edit.version.save(update_fields=["school"])
    return edit.version


@transaction.atomic
def _of_the_studio(member: Member, figure_id: UUID, question: str, way: str) -> Version:
    version = newest_version(figure_of(member.studio, figure_id))
    studio = Studio.objects.select_for_update().get(pk=member.studio_id)
    studio.habits = {**studio.habits, SCHOOL: {**studio.habits.get(SCHOOL, {}), question: way}}
    studio.save(update_fields=["habits"])
    return version
