"""Keeping the shelf true: the walk with the scale, sleeping bags, dated looks."""

import datetime as dt
import re
import uuid
from decimal import Decimal as D
from types import SimpleNamespace

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at
from tests.web.helpers import get, post, text, title, told, words
from tests.web.shared import shared
from wembit.core.craft.moths import COLD_DAYS
from wembit.web import clock
from wembit.web.bench.queries import sources
from wembit.web.stash.models import Drawer, Entry, Lot, Reminder
from wembit.web.studio.models import VIEWER


@shared
def drawer(owner):
    """Three bags in drawer A1, one elsewhere, one nowhere."""
    for name, grams in (("fog", "38"), ("moss", "40"), ("slate", "12")):
        make.lot(owner, name, grams)
    make.lot(owner, "core", "300", form="core", drawer="B2")
    make.lot(owner, "stray", "9", drawer="")


def at(name: str) -> str:
    """The address of a drawer's walk."""
    return f"stash/walk/{Drawer.objects.get(name=name).pk}/"


def weigh(client, lot, amount, place="A1"):
    return post(client, f"{at(place)}?bag={lot.pk}", follow=True, amount=amount)


def test_the_walk_begins_where_nobody_was_for_longest(client, owner, studio, drawer):
    for lot in Lot.objects.of(studio).filter(drawer__name="A1"):
        post(client, f"stash/lot/{lot.pk}/weigh/", amount=str(lot.on_hand))
    page = words(get(client, "stash/walk/"))
    assert page.index("Drawer B2") < page.index("Drawer A1")
    assert "No drawer 1 bag" in page


def test_in_a_room_that_was_told_the_air_is_reckoned_by_the_month(client, owner, studio):
    january, august = (dt.datetime(2026, month, 15, 12, tzinfo=dt.UTC) for month in (1, 8))
    with clock.as_of(january):
        for name in ("fog", "moss"):
            make.lot(owner, name, "100")
    assert "heated in winter" in words(get(client, "stash/walk/"))
    assert "Choose one of the two" in told(post(client, "stash/walk/room/", room="moon"))
    assert post(client, "stash/walk/room/", room="heated").status_code == 302
    assert 'aria-pressed="true">heated in winter' in get(client, "stash/walk/")
    bags = {lot.item.name: lot for lot in Lot.objects.of(studio).select_related("item")}
    with clock.as_of(august):
        said = words(text(weigh(client, bags["fog"], "104,5")))
        assert "that is the air, not a loss: it was 35 % damp then and mostly is 60 % now" in said
        assert "less than the book" in words(text(weigh(client, bags["moss"], "96")))
    viewer = signed_in(make.member(studio, VIEWER, "vera"))
    assert "heated in winter" not in get(viewer, "stash/walk/")
    assert post(viewer, "stash/walk/room/", room="heated").status_code == 403


def test_one_bag_after_another_to_the_end(client, studio, drawer):
    page = get(client, at("A1"))
    assert "bag 1 of 3" in words(page)
    assert title(page).startswith("fog")
    bags = {lot.item.name: lot for lot in Lot.objects.of(studio).select_related("item")}
    page = weigh(client, bags["fog"], "38,6").content.decode()
    assert title(page).startswith("moss")
    assert "can be the air, not a loss" in page
    page = weigh(client, bags["moss"], "31").content.decode()
    assert title(page).startswith("slate")
    assert "9" in page
    assert "taken and not written down" in page
    page = weigh(client, bags["slate"], "").content.decode()
    assert "Drawer A1: 1 of 3 not weighed today" in words(page)
    assert "slate on the scale" in page
    held = {lot.item.name: lot.on_hand for lot in Lot.objects.of(studio).select_related("item")}
    assert (held["fog"], held["moss"], held["slate"]) == (D("38.6"), 31, 12)
    assert Entry.objects.of(studio).filter(verb="recount").count() == 2, "an empty field leaves the bag as it is"
    assert "Drawer A1 is true" in weigh(client, bags["slate"], "12").content.decode()


def test_what_cannot_be_read_stays_with_the_bag(client, studio, drawer):
    lot = Lot.objects.of(studio).get(item__name="moss")
    answer = post(client, f"{at('A1')}?bag={lot.pk}", amount="much")
    assert "cannot be read" in told(answer)
    assert 'value="much"' in answer.content.decode()


def test_bags_without_a_drawer_are_a_place_and_an_unknown_one_is_not(client, drawer):
    assert "stray" in get(client, "stash/walk/without-a-drawer/")
    assert client.get(client.base + f"stash/walk/{uuid.uuid4()}/").status_code == 404
    assert title(get(client, f"{at('A1')}?bag=nonsense")).startswith("fog")


@pytest.mark.parametrize("name", ["A/1", "?", "..", "reminder", "a b/#"])
def test_a_drawer_of_any_name_is_walked(client, owner, studio, name):
    make.lot(owner, "fog", "38", drawer=name)
    page = get(client, "stash/walk/")
    address = re.search(r'href="(/s/saltgrass/stash/walk/[^"]+)"', page)[1]
    assert title(text(client.get(address))).startswith("fog")


def test_notions_are_counted_on_the_walk(client, owner, studio):
    lot = make.notion_lot(owner)
    page = get(client, "stash/walk/without-a-drawer/")
    assert "There are" in page
    post(client, f"stash/walk/without-a-drawer/?bag={lot.pk}", amount="18")
    lot.refresh_from_db()
    assert lot.on_hand == 18


def test_bags_that_nobody_touched_for_half_a_year_are_named(client, owner):
    with clock.as_of(clock.now() - dt.timedelta(days=200)):
        make.lot(owner, "sleeper", "5")
    make.lot(owner, "moss", "5")
    page = words(get(client, "stash/walk/"))
    asleep = page.split("half a year")[1]
    assert "sleeper" in asleep
    assert "moss" not in asleep


def test_a_dated_look_comes_round_and_stands_on_today(client, studio):
    today = clock.today(studio)
    post(client, "stash/walk/reminder/", words="moths", due=today.isoformat(), every_days="42", drawer="E1")
    found = Reminder.objects.of(studio).get()
    assert found.drawer.name == "E1"
    assert "moths" in get(client, "")
    post(client, f"stash/walk/reminder/{found.pk}/")
    found.refresh_from_db()
    assert found.due == today + dt.timedelta(days=42)
    assert found.seen_on == today
    assert "moths" not in get(client, "")


def test_a_look_for_once_is_gone_when_it_is_done(client, studio):
    post(client, "stash/walk/reminder/", words="damp", due=clock.today(studio).isoformat(), every_days="0")
    post(client, f"stash/walk/reminder/{Reminder.objects.get().pk}/")
    assert not Reminder.objects.exists()


@pytest.mark.parametrize(
    ("change", "said"),
    [({"words": " "}, "Say what"), ({"due": "soon"}, "Write a day"), ({"due": "2020-01-01"}, "lies behind"),
     ({"every_days": "often"}, "whole days"), ({"every_days": "5000"}, "whole days")],
)  # fmt: skip
def test_a_look_that_cannot_be_is_told_and_stays(client, studio, change, said):
    given = {"words": "moths", "due": clock.today(studio).isoformat(), "every_days": "42"} | change
    answer = post(client, "stash/walk/reminder/", **given)
    assert said in told(answer)
    assert re.search(rf'name="every_days"[^>]*value="{given["every_days"]}"', answer.content.decode())


def test_a_viewer_walks_and_weighs_nothing(studio, client, drawer):
    viewer = signed_in(make.member(studio, VIEWER, "una"))
    assert "Next bag" not in get(viewer, at("A1"))
    lot = Lot.objects.of(studio).get(item__name="moss")
    assert post(viewer, f"{at('A1')}?bag={lot.pk}", amount="3").status_code == 403


def test_moths_close_a_drawer_wherever_its_bags_are_named_until_none_is_left(client, owner, studio, drawer):
    drawer = Drawer.objects.get(name="A1")
    bag = drawer.lots.first()
    page = get(client, f"stash/walk/{drawer.pk}/")
    form_at(page, f"/{drawer.pk}/moths/").send(client)
    drawer.refresh_from_db()
    assert drawer.closed_until == clock.today(studio) + dt.timedelta(days=COLD_DAYS)
    assert "/moths/" not in get(client, f"stash/walk/{drawer.pk}/"), "closed already"
    assert "shut tight and in the freezer until" in words(get(client, "stash/walk/"))
    assert "Moths were found in its drawer" in words(get(client, f"stash/lot/{bag.pk}/"))
    assert ", closed" in words(get(client, "stash/?by=drawer"))
    assert "cold long enough" not in get(client, "")
    Drawer.objects.filter(pk=drawer.pk).update(closed_until=clock.today(studio))
    studio.refresh_from_db()
    assert "look through it now" in get(client, "stash/walk/")
    form = form_at(get(client, "stash/walk/"), f"/{drawer.pk}/clear/")
    form.send(client)
    drawer.refresh_from_db()
    assert drawer.closed_until is None
    assert "closed" not in words(get(client, "stash/?by=drawer"))
    post(client, "undo/")
    drawer.refresh_from_db()
    assert drawer.closed_until == clock.today(studio), "opening is taken back"


def test_the_bench_takes_from_a_closed_drawer_last(owner, drawer):
    closed, free = (make.lot(owner, "olive", grams, drawer=where) for grams, where in (("90", "B2"), ("20", "C3")))
    assert [source.lot for source in sources(_wanted(closed))] == [closed, free]
    Drawer.objects.filter(name="B2").update(closed_until=dt.date(2030, 1, 1))
    assert [source.lot for source in sources(_wanted(closed))] == [free, closed]


def _wanted(lot):
    return SimpleNamespace(studio=lot.studio, item=lot.item, item_id=lot.item_id, need=None)
