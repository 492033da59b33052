"""What runs out by ranges, habit and what comes: each input is seen in what comes out."""

import datetime as dt
from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.helpers import get, post, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.plan.models import Need
from wembit.web.restock.queries import tide_of
from wembit.web.stash.actions.discard import discard
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.unplanned import habits
from wembit.web.studio.models import Studio


def fresh(owner):
    return Studio.objects.get(pk=owner.studio_id)


def used_weekly(owner, bag, grams, weeks=20):
    """Each week so much, for nothing that is planned."""
    entries = []
    for ago in range(weeks, 0, -1):
        with clock.as_of(clock.now() - dt.timedelta(days=7 * ago - 3)):
            entries.append(pull(owner, bag.pk, D(grams), press=make.press()))
    return entries


@shared
def bag(owner):
    with clock.as_of(clock.now() - dt.timedelta(days=150)):
        return make.lot(owner, "oat", "100")


def test_steady_use_beside_plans_is_a_habit_and_runs_out(client, owner, bag):
    used_weekly(owner, bag, "4")
    found = habits(fresh(owner))[bag.item_id]
    assert found.weekly_g == pytest.approx(4, abs=0.4)
    tide = tide_of(fresh(owner), bag.item_id)
    assert tide.needs == []
    weeks = (tide.outlook.runs_out - clock.today(owner.studio)).days / 7
    assert weeks == pytest.approx(20 / 4, abs=1.5), "20 g are left"
    assert "a week go beside all plans" in words(get(client, f"restock/item/{bag.item_id}/"))
    assert "oat" in words(get(client, "restock/"))


def test_what_was_taken_back_is_no_habit(owner, bag):
    entries = used_weekly(owner, bag, "2")
    before = habits(fresh(owner))[bag.item_id].weekly_g
    for entry in entries[10:]:
        undo(owner, entry_id=entry.pk, press=make.press())
    assert habits(fresh(owner))[bag.item_id].weekly_g < before


def test_wool_thrown_away_is_no_habit_but_needles_that_break_are(owner, bag):
    with clock.as_of(clock.now() - dt.timedelta(days=150)):
        needles = make.notion_lot(owner, "fine needles", "40", notion="needle")
    for ago in range(20, 0, -1):
        with clock.as_of(clock.now() - dt.timedelta(days=7 * ago - 3)):
            discard(owner, bag.pk, D(2), press=make.press(), why="moths")
            discard(owner, needles.pk, D(1), press=make.press())
    found = habits(fresh(owner))
    assert bag.item_id not in found
    assert found[needles.item_id].weekly_g == pytest.approx(1, abs=0.2)


def test_what_is_taken_for_a_plan_is_none(client, owner, bag):
    project = make.project(owner, make.figure(owner, fibre=bag))
    need = Need.objects.get(project=project)
    for ago in range(12, 0, -1):
        with clock.as_of(clock.now() - dt.timedelta(days=7 * ago - 3)):
            pull(owner, bag.pk, D("0.1"), press=make.press(), need=need.pk)
    assert habits(fresh(owner)) == {}


def test_a_few_weeks_are_no_habit(owner, bag):
    make_new = make.lot(owner, "new", "50")
    pull(owner, make_new.pk, D(5), press=make.press())
    assert make_new.item_id not in habits(fresh(owner))


def test_the_range_of_a_plan_says_the_odds(owner):
    bag = make.lot(owner, "moss", "50")
    make.project(owner, make.figure(owner, fibre=bag, length=60), days=40)
    need = Need.objects.get()
    assert need.p90 > need.p50
    for share, low, high in ((0.7, 0.85, 1.0), (1.0, 0.3, 0.7), (1.6, 0.0, 0.15)):
        recount(owner, bag.pk, (need.p50 * D(share)).quantize(D("0.01")), press=make.press())
        tide = tide_of(fresh(owner), bag.item_id)
        assert low <= tide.odds <= high, share
        assert (tide.outlook.runs_out is not None) == (tide.odds > 0.1)


def test_each_input_is_seen_in_what_comes_out(owner, bag):
    project = make.project(owner, make.figure(owner, fibre=bag, length=80), days=30)
    recount(owner, bag.pk, D(20), press=make.press())

    def state():
        tide = tide_of(fresh(owner), bag.item_id)
        return tide.outlook, tide.odds

    seen = [state()]
    recount(owner, bag.pk, D(30), press=make.press())
    seen.append(state())
    project.count = 2
    project.save()
    Need.objects.filter(project=project).update(p50=D(80), p90=D(110), p10=D(60))
    seen.append(state())
    Need.objects.filter(project=project).update(p90=D(200))
    seen.append(state())
    type(project).objects.filter(pk=project.pk).update(start=clock.today(owner.studio) + dt.timedelta(3))
    seen.append(state())
    make.offer(owner, bag.item, "50")
    seen.append(state())
    assert len(set(map(str, seen))) == len(seen)


def test_another_studio_s_use_is_not_heard(owner, bag):
    other = make.studio_owner("Reedmoor", "una")
    with clock.as_of(clock.now() - dt.timedelta(days=150)):
        theirs = make.lot(other, "oat", "100")
    used_weekly(other, theirs, "3")
    assert habits(fresh(owner)) == {}
    assert set(habits(fresh(other))) == {theirs.item_id}


def delivered(client, item, offer, days):
    """An order sent and come after so many days."""
    with clock.as_of(clock.now() - dt.timedelta(days=60)):
        post(client, "restock/list/", item=str(item.pk), **{f"pack_{offer.pk}": "1"})
        order = offer.supplier.orders.get(state="draft")
        post(client, f"restock/order/{order.pk}/send/")
    with clock.as_of(clock.now() - dt.timedelta(days=60 - days)):
        post(client, f"restock/order/{order.pk}/arrival/", amount_0="1", dye_lot_0="", drawer_0="")


def test_what_deliveries_took_moves_the_day_to_order(client, owner):
    bag = make.lot(owner, "moss", "2")
    offer = make.offer(owner, bag.item, "50")
    make.project(owner, make.figure(owner, fibre=bag, length=60), days=90)
    told = tide_of(fresh(owner), bag.item_id)
    assert told.lead_days == offer.supplier.lead_days
    for days in (offer.supplier.lead_days + 8, offer.supplier.lead_days + 12, offer.supplier.lead_days + 20):
        delivered(client, bag.item, offer, days)
    learnt = tide_of(fresh(owner), bag.item_id)
    assert learnt.lead_days > offer.supplier.lead_days + 10
    assert learnt.outlook.order_by < told.outlook.order_by
    assert f"{learnt.lead_days} days" in words(get(client, f"restock/item/{bag.item_id}/"))
