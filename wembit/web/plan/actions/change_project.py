"""Change a project's name, number or dates, for whom it is, or what comes before it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from uuid import UUID

from django.db import transaction

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.limits import MAKINGS
from wembit.web.plan.figure_needs import needed_items
from wembit.web.plan.models import PLANNED, Project
from wembit.web.plan.queries import project_of
from wembit.web.studio.models import MAKER, Member

from .needs import write_needs
from .plan_project import few_enough
from .reserve import reserve


@transaction.atomic
def change_project(
    member: Member,
    project_id: UUID,
    *,
    name: str,
    count: int,
    start: dt.date,
    due: dt.date,
    for_whom: str | None = None,
    priority: int | None = None,
    sizes: Sequence[float] | None = None,
) -> Project:
    """Keep the changes, None being none; the needs follow the number. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    project = project_of(member.studio, project_id)
    if project.state != PLANNED:
        raise Refusal(f"{project.name} is closed; it cannot be changed any more.")
    if due < clock.today(member.studio) and due != project.due:
        raise Refusal("The due date lies behind. Choose today or later.", "due")
    if start > due:
        raise Refusal("It would start after it is due. Choose an earlier start.", "start")
    if not 1 <= count <= MAKINGS:
        raise Refusal(f"Choose how many: 1 to {MAKINGS}.", "count")
    begun, before = project.makings.count(), (project.count, project.all_sizes)
    few_enough(sizes or (), count)
    if count < begun:
        raise Refusal(f"{begun} are begun already. Choose at least {begun}.", "count")
    project.name, project.count, project.start, project.due = " ".join(name.split()) or project.name, count, start, due
    project.for_whom = project.for_whom if for_whom is None else for_whom
    project.priority = project.priority if priority is None else priority
    project.sizes = project.sizes if sizes is None else list(sizes)
    project.save(update_fields=["name", "count", "start", "due", "for_whom", "priority", "sizes"])
    is_another = (count, project.all_sizes) != before
    reserve(member.studio, write_needs(project) if is_another else needed_items(project))
    return project
