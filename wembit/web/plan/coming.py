"""What is on its way or on a list of what the plan needs: told by the room that orders, which registers itself here."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.web.stash.models import ZERO

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


@dataclass(frozen=True)
class Coming:
    """Of one item, in its unit: what is on the way and when the first of it comes, and what stands on a list not yet sent."""

    on_the_way: Decimal = ZERO
    on: dt.date | None = None
    on_list: Decimal = ZERO


tellers: list[Callable[[Studio, Iterable[UUID]], dict[UUID, Coming]]] = []  # restock/apps.py adds the one there is


def coming(studio: Studio, item_ids: Iterable[UUID]) -> dict[UUID, Coming]:
    """What comes of these items; those of which nothing does are left out."""
    ids = list(item_ids)
    told: dict[UUID, Coming] = {}
    for teller in tellers:
        told |= teller(studio, ids)
    return told
