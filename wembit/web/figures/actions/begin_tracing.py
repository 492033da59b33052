"""Begin to draw a part."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.figures.models import Reference, Tracing
from wembit.web.figures.queries import figure_of
from wembit.web.studio.models import MAKER, Member

BOARD_MM = 250.0  # how wide a board is until a distance in it is said


@transaction.atomic
def begin_tracing(member: Member, figure_id: UUID, kind: str, reference_id: UUID | None) -> Tracing:
    """An empty tracing over a picture of the figure, or over a bare board. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    figure = figure_of(member.studio, figure_id)
    if kind not in dict(Tracing.KINDS):
        raise Refusal("Choose what it becomes.", "kind")
    reference = None
    if reference_id is not None:
        reference = get_object_or_404(Reference.objects.of(member.studio), pk=reference_id, figure=figure)
    tracing = Tracing(studio=member.studio, figure=figure, reference=reference, kind=kind)
    if reference:
        tracing.mm_a_unit = BOARD_MM / reference.width_px
    tracing.save()
    return tracing
