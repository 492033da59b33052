"""Answer whether somebody still works at a part whose time is past."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.core.work.spells import ends_at
from wembit.core.work.step import minutes_range
from wembit.web import clock
from wembit.web.bench.models import Making, Piece
from wembit.web.bench.part_clock import lines_of, planned_minutes
from wembit.web.bench.queries import spells_of
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def answer_clock(member: Member, piece_id: UUID, *, still: bool) -> None:
    """Still: it was work all along, and goes on. Else it ended when the usual time was over. Raises `Http404`."""
    member.must_be(MAKER)
    piece = get_object_or_404(Piece.objects.of(member.studio).select_related("making__colourway__version"), pk=piece_id)
    Making.objects.locked().get(pk=piece.making_id)
    rows = spells_of(piece.making, piece.part_key)
    going = [row for row in rows if row.ended_at is None]
    most = minutes_range(planned_minutes(lines_of(piece.making), piece.part_key))[1]
    for row in going:
        if still:
            row.sure = True
        else:
            spells = [other.as_core() for other in rows if other.ended_at is not None or other.pk == row.pk]
            row.ended_at = ends_at(spells, clock.now(), most)
        row.save(update_fields=["sure", "ended_at"])
