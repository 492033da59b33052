"""What there is to do today, each with the place where it is done."""

from __future__ import annotations

import datetime as dt
from typing import TYPE_CHECKING

from wembit.web.bench.queries import makings, makings_in_hand
from wembit.web.few import Few, few
from wembit.web.plan.queries import first_without, projects, shorts_by_project
from wembit.web.restock.queries import on_the_way, tides_now, to_show
from wembit.web.stash.queries import first_entry_at, low_items
from wembit.web.stash.walk.queries import closed, reminders_due

from . import clock

if TYPE_CHECKING:
    from wembit.web.plan.models import Project
    from wembit.web.studio.models import Studio

SOON_DAYS, BACKUP_DAYS = 14, 7
IN_HAND = 3  # makings shown


def things_now(studio: Studio) -> dict:
    """`things_to_do`, kept until the next press or the next day."""
    return studio.cached_until_change(f"today:{clock.today(studio)}", lambda: things_to_do(studio))


def days_without_backup(studio: Studio) -> int:
    """Days since the last backup, or since the first entry where none was made; 0 while that is no week."""
    first = studio.backed_up_at or first_entry_at(studio)
    days = (clock.now() - first).days if first else 0
    return days if days >= BACKUP_DAYS else 0


def things_to_do(studio: Studio) -> dict:
    """Next at the bench, what to order by when, what is due, what is low, what comes: the first few of each."""
    today = clock.today(studio)
    shorts = shorts_by_project(studio)
    due: Few[Project] = few(projects(studio, due_by=today + dt.timedelta(days=SOON_DAYS))) or few(projects(studio)[:1])
    for project in due:
        project.short = shorts.get(project.pk, [])
    tides = few([tide for tide in tides_now(studio) if tide.to_order])
    in_hand = makings(studio, 0, IN_HAND)
    return {
        "makings": in_hand,
        "more_in_hand": max(makings_in_hand(studio) - IN_HAND, 0),
        "tides": Few(to_show(tides), tides.more),
        "due": due,
        "startable": None if in_hand else first_without(studio, shorts),
        "low": few(low_items(studio)),
        "coming": few(on_the_way(studio)),
        "looks": reminders_due(studio),
        "closed": [drawer for drawer in closed(studio) if drawer.closed_until and drawer.closed_until <= today],
        "unsaved_days": days_without_backup(studio),
    }
