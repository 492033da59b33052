"""Say how long a part took, whatever the clock says."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.bench.models import Making, Piece
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member

MOST_MINUTES = 10_000.0


@transaction.atomic
def correct_minutes(member: Member, piece_id: UUID, minutes: float | None) -> Making:
    """The part of that piece took so many minutes, all its pieces; None: what the clock says. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    piece = get_object_or_404(Piece.objects.of(member.studio), pk=piece_id)
    making = Making.objects.of(member.studio).locked().get(pk=piece.making_id)
    if minutes is not None and not 0 <= minutes <= MOST_MINUTES:
        raise Refusal(f"Write minutes, at most {MOST_MINUTES:.0f}.", "minutes")
    kept = {key: value for key, value in making.minutes.items() if key != piece.part_key}
    making.minutes = kept if minutes is None else {**kept, piece.part_key: minutes}
    making.save(update_fields=["minutes"])
    return making
