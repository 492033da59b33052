"""What is planned follows what is said anew of its fibres: a cover hides more or less in another colour."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from uuid import UUID

from wembit.web.errors import Refusal
from wembit.web.plan.models import PLANNED, Project
from wembit.web.studio.models import Studio

from .rewrite_needs import rewrite_needs


def follow_looks(studio: Studio, item_ids: Iterable[UUID]) -> None:
    """Needs and promises of the open projects whose colourway names one of these items; makings in hand stay as they were
    begun.
    """
    naming = Project.objects.of(studio).filter(state=PLANNED, colourway__choices__item__in=list(item_ids))
    for pk in dict.fromkeys(naming.order_by("due", "made_at").values_list("pk", flat=True)):
        with suppress(Refusal):  # a figure that cannot be computed says so on its own page
            rewrite_needs(studio, pk)
