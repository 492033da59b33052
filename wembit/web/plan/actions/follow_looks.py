"""What is planned follows what is said anew of its fibres: a cover hides more or less in another colour."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from uuid import UUID

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import lock_figure
from wembit.web.figures.models import Version
from wembit.web.plan.models import PLANNED, Project
from wembit.web.studio.models import Studio

from .follow_figure import follow_figure


def follow_looks(studio: Studio, item_ids: Iterable[UUID]) -> None:
    """Needs and promises of the open projects whose colourway names one of these items and that no making has frozen."""
    planned = Project.objects.of(studio).filter(
        state=PLANNED, colourway__version__frozen_at=None, colourway__choices__item__in=list(item_ids)
    )
    versions = Version.objects.filter(pk__in=planned.values("colourway__version")).order_by("figure_id")
    for pk, figure_id in versions.values_list("pk", "figure_id"):
        with suppress(Refusal), transaction.atomic():  # a figure that cannot be computed says so on its own page
            lock_figure(studio, figure_id)
            follow_figure(Version.objects.select_related("studio", "figure").get(pk=pk))
