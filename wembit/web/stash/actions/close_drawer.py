"""Moths were found in a drawer: its wool lies shut and cold, and is looked through before it is taken again."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.core.craft.moths import COLD_DAYS
from wembit.web import clock
from wembit.web.stash.models import Drawer
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def close_drawer(member: Member, drawer_id: UUID) -> Drawer:
    """The drawer is closed for so many days from today, also where it is closed already. Raises `Http404`."""
    member.must_be(MAKER)
    drawer = _locked(member, drawer_id)
    drawer.closed_until = clock.today(member.studio) + dt.timedelta(days=COLD_DAYS)
    drawer.save(update_fields=["closed_until"])
    return drawer


@transaction.atomic
def open_drawer(member: Member, drawer_id: UUID) -> Drawer:
    """Nothing was found any more. Raises `Http404`."""
    member.must_be(MAKER)
    drawer = _locked(member, drawer_id)
    drawer.closed_until = None
    drawer.save(update_fields=["closed_until"])
    return drawer


def _locked(member: Member, drawer_id: UUID) -> Drawer:
    return get_object_or_404(Drawer.objects.of(member.studio).locked(), pk=drawer_id)
