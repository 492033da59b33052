"""The journal of deeds: what a member did, newest first, so that the last thing can be taken back."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any
from uuid import UUID

from wembit.web import clock

from .models import Deed

if TYPE_CHECKING:
    from .models import Member

MOST_SHOWN = 200
KEPT_A_FIGURE = 100  # deeds of a figure that keep their rows; older ones are still told, but not taken back


def keep_deed(
    member: Member,
    words: str,
    kind: str = Deed.OTHER,
    thing: UUID | None = None,
    *,
    version: UUID | None = None,
    rows: Sequence[Any] | None = None,
) -> Deed:
    """Write a deed into the journal, within the caller's transaction. `rows` are those that a change of a figure changed."""
    deed = Deed.objects.create(
        studio=member.studio,
        member=member,
        made_at=clock.now(),
        kind=kind,
        thing=thing,
        words=words[:120],
        version=version,
        rows=rows,
    )
    member.has_told = True
    if kind == Deed.FIGURE:
        old = Deed.objects.of(member.studio).filter(thing=thing, rows__isnull=False).order_by("-made_at")
        beyond = list(old.values_list("pk", flat=True)[KEPT_A_FIGURE : KEPT_A_FIGURE + 50])
        if beyond:
            Deed.objects.filter(pk__in=beyond).update(rows=None)
    return deed


def last_deed(member: Member) -> Deed | None:
    """This member's last deed of today that was not taken back."""
    midnight = clock.at(member.studio, clock.today(member.studio), 0)
    mine = Deed.objects.of(member.studio).filter(member=member, made_at__gte=midnight, taken_back_at=None)
    return mine.first()


def others_since(member: Member, figure_id: UUID, moment: dt.datetime) -> list[Deed]:
    """What others have changed of a figure since that moment and not taken back, the newest first, with its rows."""
    changes = Deed.objects.of(member.studio).filter(kind=Deed.FIGURE, thing=figure_id, made_at__gt=moment)
    theirs = changes.filter(taken_back_at=None, rows__isnull=False).exclude(member=member)
    return list(theirs.select_related("member__user"))


def last_taken_back(member: Member) -> Deed | None:
    """The deed of today that was taken back last, unless something was done since."""
    midnight = clock.at(member.studio, clock.today(member.studio), 0)
    mine = Deed.objects.of(member.studio).filter(member=member, made_at__gte=midnight)
    back = mine.filter(taken_back_at__isnull=False).order_by("-taken_back_at").first()
    newest = last_deed(member)
    if back is None or back.taken_back_at is None:
        return None
    return back if newest is None or newest.made_at < back.taken_back_at else None


def deeds_of_today(member: Member) -> list[tuple[dt.datetime, Deed]]:
    """What this member did today and when, by the studio's clock, newest first."""
    midnight, zone = clock.at(member.studio, clock.today(member.studio), 0), clock.zone(member.studio)
    deeds = Deed.objects.of(member.studio).filter(member=member, made_at__gte=midnight)[:MOST_SHOWN]
    return [(deed.made_at.astimezone(zone), deed) for deed in deeds]


def mark_taken_back(member: Member, entry_id: UUID) -> None:
    """The deed of a stock entry that was reversed, wherever that was done."""
    deeds = Deed.objects.of(member.studio).filter(kind=Deed.STOCK, thing=entry_id, taken_back_at=None)
    deeds.update(taken_back_at=clock.now())
