"""Saltgrass: as full as it is promised to be, on whatever day it is loaded."""

import datetime as dt
from zoneinfo import ZoneInfo

import pytest

from wembit.demo.loader import load
from wembit.web import clock
from wembit.web.bench.queries import makings
from wembit.web.plan.models import Project
from wembit.web.restock.models import Order
from wembit.web.restock.queries import tide_lines
from wembit.web.stash.models import Entry

LONDON = ZoneInfo("Europe/London")


@pytest.mark.whole
@pytest.mark.django_db
@pytest.mark.parametrize("day", [dt.date(2028, 12, 31)], ids=str)
def test_the_demo_is_made_for_the_day_on_which_it_is_loaded(day):
    with clock.as_of(dt.datetime.combine(day, dt.time(9, 30), LONDON)):
        studio = load()
        projects = list(Project.objects.of(studio).filter(state="planned"))
        late = [project for project in projects if project.due < day]
        assert len(projects) == 5
        assert len(late) == 1
        assert all(abs((project.due - day).days) < 60 for project in projects)
        urgent = [tide for tide in tide_lines(studio) if tide.to_order]
        assert urgent
        assert all(tide.outlook.order_by >= day and tide.offers for tide in urgent)
        assert Order.objects.of(studio).get(state="sent").expected_on > day
        assert len(makings(studio, 0, 9)) == 2
        assert all(line.next for line in makings(studio, 0, 9))
    entries = Entry.objects.of(studio)
    assert entries.count() > 300
    first, last = entries.earliest("happened_at").happened_at, entries.latest("happened_at").happened_at
    assert (last - first).days > 90
    assert last.date() <= day
