"""What is planned follows its figure until its first making."""

from __future__ import annotations

from uuid import UUID

from wembit.web.figures.models import Version
from wembit.web.plan.models import PLANNED, Project

from .needs import write_needs
from .reserve import reserve


def follow_figure(version: Version) -> None:
    """Needs and promises of the open projects of a version that no making has frozen, as the figure now is. Slots without a
    fibre wait. Within the transaction of the change; the figure is locked.
    """
    if version.frozen_at is not None:
        return
    projects = Project.objects.filter(colourway__version=version, state=PLANNED).locked()
    items: set[UUID] = set()
    for project in projects.select_related("studio", "colourway__studio", "colourway__version__figure"):
        project.colourway.version = version
        items |= write_needs(project)
    if items:
        reserve(version.studio, items)
