"""Keep the picture of a piece with what it shows."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db import transaction

from wembit.web.bench.models import Piece
from wembit.web.bench.queries import piece_of
from wembit.web.studio.models import MAKER, Member

if TYPE_CHECKING:
    from django.core.files.base import ContentFile


@transaction.atomic
def see_piece(member: Member, piece_id: UUID, photo: ContentFile, seen: dict[str, Any]) -> Piece:
    """The piece's picture from now on, and what `seen_in` says of it. Raises `Http404`."""
    member.must_be(MAKER)
    piece = piece_of(member.studio, piece_id)
    piece.photo, piece.seen = photo, seen
    piece.save(update_fields=["photo", "seen"])
    return piece
