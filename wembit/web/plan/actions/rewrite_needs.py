"""Bring one project's needs and promises to what it takes as it now is."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.editing.door import lock_figure
from wembit.web.plan.models import Project
from wembit.web.plan.queries import project_of
from wembit.web.studio.models import Studio

from .needs import write_needs
from .reserve import reserve


@transaction.atomic
def rewrite_needs(studio: Studio, project_id: UUID) -> Project:
    """The project with its needs as `write_needs` finds them; its figure is locked before it. Raises `Refusal` for a figure
    that cannot be computed, `Http404`.
    """
    lock_figure(studio, project_of(studio, project_id).colourway.version.figure_id)
    Project.objects.filter(pk=project_id).locked().get()
    project = project_of(studio, project_id)
    reserve(studio, write_needs(project))
    return project
