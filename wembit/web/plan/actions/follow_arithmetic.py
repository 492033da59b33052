"""What was planned by an older arithmetic follows the one that stands."""

from __future__ import annotations

from contextlib import suppress

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.plan.models import ARITHMETIC, PLANNED, Project

from .rewrite_needs import rewrite_needs


def follow_arithmetic() -> int:
    """Bring the needs and promises of all open projects, of every studio, that an older Wembit worked out to what they are
    now. How many there were.
    """
    old = Project.objects.filter(state=PLANNED, arithmetic__lt=ARITHMETIC).select_related("studio")
    done = 0
    for project in old.order_by("due", "made_at"):
        with suppress(Refusal), transaction.atomic():  # a figure that cannot be computed says so on its own page
            rewrite_needs(project.studio, project.pk)
            Project.objects.filter(pk=project.pk).update(arithmetic=ARITHMETIC)
            done += 1
    return done
