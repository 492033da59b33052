"""Keep a picture of a bag."""

from __future__ import annotations

from uuid import UUID

from django.core.files.base import ContentFile
from django.db import transaction

from wembit.web.stash.models import Lot
from wembit.web.stash.queries import lot_of
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def picture_lot(member: Member, lot_id: UUID, picture: ContentFile) -> Lot:
    """The bag's picture, in the place of an earlier one. Raises `Http404`."""
    member.must_be(MAKER)
    lot = lot_of(member.studio, lot_id)
    lot.photo = picture
    lot.save(update_fields=["photo"])
    return lot
