"""Give a project up, or close it when it is done."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.plan.models import DONE, DROPPED, Project
from wembit.web.plan.queries import project_of
from wembit.web.studio.models import MAKER, Member

from .reserve import reserve


@transaction.atomic
def drop_project(member: Member, project_id: UUID) -> Project:
    """The project is not made; what was promised to it is free again. Raises `Http404`."""
    return _closed(member, project_id, DROPPED)


@transaction.atomic
def finish_project(member: Member, project_id: UUID) -> Project:
    """The project is done; what it did not take is free again. Raises `Http404`."""
    return _closed(member, project_id, DONE)


def _closed(member: Member, project_id: UUID, state: str) -> Project:
    member.must_be(MAKER)
    project = project_of(member.studio, project_id)
    project.state = state
    project.save(update_fields=["state"])
    reserve(member.studio, project.needs.values_list("item", flat=True))
    return project
