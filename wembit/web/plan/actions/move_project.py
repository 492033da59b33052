"""Move a project to another day, or make more or fewer of it."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from django.db import transaction

from wembit.web import clock
from wembit.web.plan.models import Project
from wembit.web.plan.queries import project_of
from wembit.web.studio.models import MAKER, Member

from .change_project import change_project


@transaction.atomic
def move_project(member: Member, project_id: UUID, *, count: int, due: dt.date) -> Project:
    """Keep the new day or number. A start that still lies ahead moves by as many days, not before today. Raises `Refusal`,
    `Http404`.
    """
    member.must_be(MAKER)
    project, today = project_of(member.studio, project_id), clock.today(member.studio)
    start = project.start
    if start > today:
        start = max(today, start + (due - project.due))
    return change_project(member, project.pk, name=project.name, count=count, start=min(start, due), due=due)
