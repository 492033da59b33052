"""Keep the size that a piece came out with, and whether it was rolled too loosely at first."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.bench.fitting import fit_of
from wembit.web.bench.models import Piece
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member

LEAST_MM = Decimal("0.5")


@transaction.atomic
def measure_piece(member: Member, piece_id: UUID, long_mm: Decimal | None, thick_mm: Decimal | None) -> Piece:
    """Its length and thickness in mm; no length forgets both. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    piece = get_object_or_404(Piece.objects.of(member.studio), pk=piece_id)
    for name, size in (("long", long_mm), ("thick", thick_mm)):
        if size is not None and size < LEAST_MM:
            raise Refusal("Measure it again: that is less than half a millimetre.", name)
    if thick_mm is not None and long_mm is None:
        raise Refusal("Measure its length, too.", "long")
    piece.long_mm = None if long_mm is None else float(long_mm)
    piece.thick_mm = None if thick_mm is None else float(thick_mm)
    found = fit_of(member.studio, piece)
    piece.was_loose = piece.was_loose or (found is not None and found.found.is_loose)
    piece.save(update_fields=["long_mm", "thick_mm", "was_loose"])
    return piece
