"""How many days each supplier has taken, from the orders that came."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from wembit.web import clock
from wembit.web.stash.models import standing

from .models import ARRIVED, Order

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


def days_taken(studio: Studio) -> dict[UUID, list[float]]:
    """Days from sending to the parcel, by supplier, without parcels that were taken back. One query."""
    zone = clock.zone(studio)
    came = Order.objects.of(studio).filter(standing("entry"), state=ARRIVED, sent_on__isnull=False, entry__isnull=False)
    found: dict[UUID, list[float]] = {}
    for supplier, sent_on, happened_at in came.values_list("supplier", "sent_on", "entry__happened_at"):
        if sent_on:
            found.setdefault(supplier, []).append(float(max(0, (happened_at.astimezone(zone).date() - sent_on).days)))
    return found
