"""What of an item other rooms reckon with beside its weight: of a fibre the colour of its newest bag, its breed and its form;
of a notion its size, make and colour, and that there is one.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.db import transaction
from django.dispatch import Signal

from .models import Item

if TYPE_CHECKING:
    from collections.abc import Iterable
    from uuid import UUID

    from wembit.web.studio.models import Studio

# after the commit, with the studio and ids of its items; plan/apps.py listens: what is planned follows its fibres, and
# bench/apps.py: what is planned and in hand follows its notions
looks_told = Signal()


def tell_looks(studio: Studio, item_ids: Iterable[UUID]) -> None:
    """Say that these items may look otherwise than before. Listeners lock figures, and figures are locked before items:
    therefore they hear of it when the caller's transaction is through.
    """
    ids = set(item_ids)
    transaction.on_commit(lambda: looks_told.send(sender=Item, studio=studio, items=ids))
