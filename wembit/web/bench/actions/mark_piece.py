"""Say how far a piece is."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.bench.models import DONE, STATES, Piece
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member

from .work_on import stop_where_made


@transaction.atomic
def mark_piece(member: Member, piece_id: UUID, state: str) -> Piece:
    """Keep the state of a piece: planned, weighed, made, waiting, fitted; the clock of its part stops when all are made.

    Raises `Refusal`, `Http404`.
    """
    member.must_be(MAKER)
    if state not in STATES:
        raise Refusal("Choose how far the piece is.", "state")
    piece = get_object_or_404(Piece.objects.of(member.studio), pk=piece_id)
    piece.state = state
    piece.save(update_fields=["state"])
    if state in DONE:
        stop_where_made(piece.making_id, piece.part_key)
    return piece
