"""Take a picture away from a figure."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.figures.models import Reference
from wembit.web.figures.queries import figure_of
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def drop_reference(member: Member, figure_id: UUID, reference_id: UUID) -> None:
    """The picture; what was traced from it stays. Its file is swept up when nobody can want it back. Raises `Http404`."""
    member.must_be(MAKER)
    figure = figure_of(member.studio, figure_id)
    reference = get_object_or_404(Reference.objects.of(member.studio), pk=reference_id, figure=figure)
    reference.delete()
