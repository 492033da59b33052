"""Today: what is in hand, ringed, and the fortnight with each thing once, on its day."""

import datetime as dt
import re

import pytest

from tests.web import factories as make
from tests.web.forms import keep_hours
from tests.web.helpers import get, post, title, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.plan.models import Project
from wembit.web.restock.models import ARRIVED, Order, OrderLine, Supplier
from wembit.web.stash.models import Lot
from wembit.web.today.fortnight import BEGIN, DAYS, DUE, LOOK, ORDER, OUT, PARCEL, ahead


@shared
def hare(owner):
    return make.figure(owner, "Hare", fibre=make.lot(owner, "oat", "900"), length=60)


def things(owner):
    owner.studio.pressed()
    owner.refresh_from_db()
    studio = owner.studio.__class__.objects.get(pk=owner.studio_id)
    return ahead(studio, clock.today(studio))


def told(owner):
    return [(thing.kind, thing.day, thing.name) for thing in things(owner).things]


def test_the_heading_is_the_date(client, studio):
    assert title(get(client)) == f"{clock.today(studio):%A %-d %B}"


def test_what_is_due_stands_on_its_day_and_what_is_behind_before_all(client, owner, hare):
    make.project(owner, hare, days=3, name="Fair")
    gone = make.project(owner, hare, days=1, name="Gift")
    yesterday = clock.today(owner.studio) - dt.timedelta(1)
    Project.objects.filter(pk=gone.pk).update(start=yesterday, due=yesterday)
    assert told(owner) == [(DUE, -1, "Gift"), (DUE, 3, "Fair")]
    page = get(client)
    assert re.search(r'class="thing c1 w\d', page) and re.search(r'class="thing c5 w\d', page)
    assert "1 × Hare, late" in words(page)


def test_a_later_project_is_begun_on_its_evening_or_comes_then(client, owner, hare):
    make.project(owner, hare, days=30, start=25, name="Spring")
    assert told(owner) == []
    assert things(owner).then.name == "Spring"
    assert "Then Spring" in words(get(client))
    make.project(owner, hare, days=20, start=5, count=3, name="Market")
    assert told(owner) == [(BEGIN, 5, "Begin Market")]
    keep_hours(client, "0.5")
    ((kind, day, _),) = [row for row in told(owner) if row[2].endswith("Market")]
    assert kind in (BEGIN, DUE) and day < DAYS
    begin_making(owner, Project.objects.get(name="Market").pk)
    assert all(name != "Begin Market" for _, _, name in told(owner)), "it is begun"


def test_what_runs_out_is_a_flag_where_somebody_sells_it(client, owner):
    moss = make.lot(owner, "moss", "4")
    figure = make.figure(owner, "Pebble", fibre=moss)
    make.project(owner, figure, count=40, days=40, start=16, name="Stall")
    page = things(owner)
    assert [(thing.kind, thing.name) for thing in page.unsold] == [(OUT, "moss runs out")]
    assert page.unsold.rows[0].line.endswith("nobody sells it yet")
    make.offer(owner, moss.item, "50", lead=11)
    (flag,) = [thing for thing in things(owner).things if thing.kind == ORDER]
    assert flag.name == "Order moss" and 0 <= flag.day <= 5
    assert flag.colour == "#6f7d43"
    assert not things(owner).unsold
    assert f'href="/s/saltgrass/restock/item/{moss.item_id}/"' in get(client)


def test_what_runs_out_soon_and_nobody_sells_stands_on_its_day(owner):
    moss = make.lot(owner, "moss", "4")
    make.project(owner, make.figure(owner, "Pebble", fibre=moss), count=40, days=20, start=6, name="Stall")
    assert (OUT, 6, "moss runs out") in told(owner)


def test_a_parcel_comes_on_its_day_until_it_has_arrived(client, owner, studio):
    moss = make.lot(owner, "moss", "4")
    make.offer(owner, moss.item)
    supplier = Supplier.objects.get()
    day = clock.today(studio) + dt.timedelta(4)
    order = Order.objects.create(
        studio=studio, supplier=supplier, state="sent", sent_on=clock.today(studio), expected_on=day
    )
    OrderLine.objects.create(studio=studio, order=order, item=moss.item, pack=50, count=1, price=4)
    assert told(owner) == [(PARCEL, 4, supplier.name)]
    assert "moss" in words(get(client))
    Order.objects.update(state=ARRIVED)
    assert told(owner) == []


def test_a_look_that_is_due_is_told(client, owner):
    make.lot(owner, "moss", "4")
    today = clock.today(owner.studio)
    post(client, "stash/walk/reminder/", words="moths in the fleece", due=today.isoformat())
    assert [(kind, day) for kind, day, _ in told(owner)] == [(LOOK, 0)]


def test_what_is_in_hand_is_drawn_with_its_next_piece_ringed(client, owner, hare):
    project = make.project(owner, hare, count=2, days=20)
    assert "Nothing is in hand" in words(get(client))
    making = begin_making(owner, project.pk)
    owner.studio.pressed()
    page = get(client)
    assert 'class="ring"' in page
    assert re.search(r"Take [\d.]+ g oat", words(page))
    lot = Lot.objects.get(item__name="oat")
    for layer in making.pieces.get().layers.all():
        post(client, f"bench/layer/{layer.pk}/take/", lot=str(lot.pk), amount="3")
    page = get(client)
    assert 'class="ring"' not in page
    assert "Finish it" in words(page)


@pytest.mark.parametrize("day", range(-1, DAYS))
def test_each_day_has_its_column_and_no_thing_leaves_the_board(owner, hare, day):
    today = clock.today(owner.studio)
    project = make.project(owner, hare, days=max(day, 0), name="A rather long name of a project")
    Project.objects.filter(pk=project.pk).update(start=today + dt.timedelta(day), due=today + dt.timedelta(day))
    (thing,) = things(owner).things
    assert thing.day == day
    assert thing.column >= 1 and thing.column + thing.wide - 1 <= DAYS + 1
    here = day + 2
    assert thing.column == here if not thing.is_back else thing.column + thing.wide - 1 >= here
