"""Say more of a lot: its colour, dye lot, drawer, picture."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction

from wembit.web.stash.looks import tell_looks
from wembit.web.stash.models import Lot
from wembit.web.stash.queries import lot_of
from wembit.web.stash.swatch import LOOK, swatch
from wembit.web.studio.models import MAKER, Member

from .name_drawer import drawer_called

if TYPE_CHECKING:
    from django.core.files.base import ContentFile


@transaction.atomic
def describe(
    member: Member, lot_id: UUID, *, srgb: str, dye_lot: str, drawer: str, photo: ContentFile | None = None
) -> Lot:
    """Keep the lot's colour, dye lot, drawer and, when given, its picture. Raises `Http404`."""
    member.must_be(MAKER)
    lot = lot_of(member.studio, lot_id)
    if srgb.lower() != lot.srgb:  # else what an instrument told would be forgotten
        for name, value in swatch(srgb).items():
            setattr(lot, name, value)
        tell_looks(member.studio, [lot.item_id])
    lot.dye_lot = dye_lot
    lot.drawer = drawer_called(member, drawer)
    if photo:
        lot.photo = photo
    lot.save(update_fields=[*LOOK, "dye_lot", "drawer", "photo"])
    return lot
