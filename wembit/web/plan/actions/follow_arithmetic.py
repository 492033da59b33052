"""What was planned by an older arithmetic follows the one that stands."""

from __future__ import annotations

from contextlib import suppress

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import lock_figure
from wembit.web.plan.models import ARITHMETIC, PLANNED, Project

from .needs import write_needs
from .reserve import reserve


def follow_arithmetic() -> int:
    """Bring the needs and promises of all open projects, of every studio, that an older Wembit worked out to what they are
    now. How many there were.
    """
    old = Project.objects.filter(state=PLANNED, arithmetic__lt=ARITHMETIC)
    done = 0
    for project in old.select_related("studio", "colourway__version__figure").order_by("due", "made_at"):
        with suppress(Refusal), transaction.atomic():  # a figure that cannot be computed says so on its own page
            _follow(project)
            done += 1
    return done


def _follow(project: Project) -> None:
    lock_figure(project.studio, project.colourway.version.figure_id)
    reserve(project.studio, write_needs(project))
    Project.objects.filter(pk=project.pk).update(arithmetic=ARITHMETIC)
