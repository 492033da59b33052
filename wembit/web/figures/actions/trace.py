"""Keep the points of a tracing and how long its marked distance is."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.figures.models import Tracing
from wembit.web.figures.to_core.tracings import apply, tracing_of
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def trace(member: Member, figure_id: UUID, tracing_id: UUID, changes: dict) -> Tracing:
    """Keep `points` and `marks` (in units of the board) and the sizes that come. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    tracing = tracing_of(member.studio, figure_id, tracing_id)
    apply(tracing, changes)
    tracing.save()
    return tracing
