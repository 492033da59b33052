"""The walk along the shelf: one place after another, one bag after another."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING
from uuid import UUID

from django.db.models import Count, Exists, F, Min, OuterRef, Q, Subquery

from wembit.web import clock
from wembit.web.stash.models import Drawer, Lot, Movement, Reminder
from wembit.web.stash.queries import with_promised

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

ASLEEP_DAYS = 180


@dataclass(frozen=True)
class Stop:
    """A drawer with its number of bags, how many of them were never weighed again, and when the first of them was last."""

    drawer_id: UUID | None
    name: str
    count: int
    never: int
    oldest: dt.datetime | None


def places(studio: Studio) -> list[Stop]:
    """Where bags lie, that first which was not walked for longest."""
    rows = (
        Lot.objects.of(studio)
        .on_shelf()
        .values("drawer", "drawer__name")
        .annotate(count=Count("pk"), never=Count("pk", filter=Q(recounted_at=None)), oldest=Min("recounted_at"))
    )
    found = [Stop(row["drawer"], row["drawer__name"] or "", row["count"], row["never"], row["oldest"]) for row in rows]
    now = clock.now()
    return sorted(found, key=lambda place: (not place.never, place.oldest or now, place.name))


def bags_in(studio: Studio, drawer_id: UUID | None) -> list[Lot]:
    """The bags of a drawer, or of none, in the order of the walk."""
    lots = with_promised(Lot.objects.of(studio).on_shelf()).select_related("item", "drawer").filter(drawer=drawer_id)
    return list(lots.order_by("item__kind", "item__breed", "item__form", "item__name", "dye_lot", "made_at", "pk"))


def not_weighed_today(studio: Studio, bags: Sequence[Lot]) -> list[Lot]:
    """Those of the bags that this day's walk has gone past."""
    today, zone = clock.today(studio), clock.zone(studio)
    return [lot for lot in bags if not lot.recounted_at or lot.recounted_at.astimezone(zone).date() != today]


def asleep(studio: Studio) -> list[Lot]:
    """Bags that nobody has touched for half a year, the longest first."""
    before = clock.now() - dt.timedelta(days=ASLEEP_DAYS)
    lines = Movement.objects.filter(lot=OuterRef("pk"))
    last = lines.order_by("-entry__happened_at").values("entry__happened_at")[:1]
    lots = (
        Lot.objects.of(studio).on_shelf().filter(Exists(lines), ~Exists(lines.filter(entry__happened_at__gte=before)))
    )
    return list(lots.annotate(touched=Subquery(last)).select_related("item", "drawer").order_by("touched")[:12])


def reminders(studio: Studio) -> list[Reminder]:
    """Dated looks, the next one first."""
    return list(Reminder.objects.of(studio).select_related("drawer").order_by(F("due").asc(), "words"))


def closed(studio: Studio) -> list[Drawer]:
    """The drawers that are closed for moths, the next to look through first."""
    return list(Drawer.objects.of(studio).exclude(closed_until=None).order_by("closed_until", "name"))


def reminders_due(studio: Studio) -> list[Reminder]:
    """Dated looks that are due today."""
    return list(Reminder.objects.of(studio).filter(due__lte=clock.today(studio)).select_related("drawer"))
