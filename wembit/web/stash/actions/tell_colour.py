"""Tell the colour of a bag, whichever way it was found."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.stash.looks import tell_looks
from wembit.web.stash.models import Lot
from wembit.web.stash.queries import lot_of
from wembit.web.stash.swatch import LOOK
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def tell_colour(member: Member, lot_id: UUID, fields: dict) -> Lot:
    """Keep the fields of a swatch (see swatch.py) with the bag. Raises `Http404`."""
    member.must_be(MAKER)
    lot = lot_of(member.studio, lot_id)
    for name in LOOK:
        setattr(lot, name, fields[name])
    lot.save(update_fields=[*LOOK])
    tell_looks(member.studio, [lot.item_id])
    return lot
