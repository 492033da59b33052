"""The stash as a maker works it: the first stocktake, the shelf, a bag, a parcel; and what she may write wrongly."""

import datetime as dt
import io
import re
import uuid
from decimal import Decimal as D

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import post, text, words
from wembit.web import clock
from wembit.web.stash.models import Entry, Item, Lot, Movement

PHOTO_SIZE = (2400, 1200)


def photo(name="bag.jpg") -> SimpleUploadedFile:
    """A picture with a place in its metadata, as a phone takes it."""
    out = io.BytesIO()
    exif = Image.Exif()
    exif[0x8825] = {1: "N", 2: (53.0, 1.0, 2.0)}
    Image.new("RGB", PHOTO_SIZE, "#6f7d43").save(out, "JPEG", exif=exif)
    return SimpleUploadedFile(name, out.getvalue(), "image/jpeg")


# --- the first stocktake


def bag(client, **given):
    return post(client, "stash/stocktake/", **{"kind": "fibre", "form": "batt", **given})


def test_a_line_of_the_stocktake_is_a_bag_on_the_shelf(client, studio):
    answer = bag(client, amount="42", breed="corriedale", name="Kelp", srgb="#47523a", has_colour="1", drawer="B2")
    assert answer.status_code == 302
    lot = Lot.objects.of(studio).get(waste=False)
    assert (lot.item.name, lot.item.breed, lot.on_hand, lot.hue, lot.drawer.name) == (
        "Kelp",
        "corriedale",
        42,
        "green",
        "B2",
    )
    assert lot.movements.get().kind == "opening"
    assert "Kelp" in text(client.get(client.base + "stash/stocktake/"))


def test_the_next_line_keeps_form_breed_and_drawer(client):
    bag(client, amount="42", breed="corriedale", name="Kelp", drawer="B2")
    page = text(client.get(client.base + "stash/stocktake/"))
    assert '<option value="batt" selected>' in page
    assert '<option value="corriedale" selected>' in page
    assert 'value="B2"' in page


def test_form_alone_is_enough_the_rest_may_stay_empty(client, studio):
    bag(client, srgb="#47523a", has_colour="1")
    bag(client, srgb="#4c5a3c", has_colour="1")
    bag(client)
    lots = Lot.objects.of(studio).filter(waste=False).order_by("made_at")
    assert [lot.item.name for lot in lots] == ["green", "green 2", "no name"]
    assert not any(lot.weighed for lot in lots)
    assert lots[0].item.what == "Wool batt"
    assert "not weighed" in text(client.get(client.base + "stash/"))


def test_a_bag_whose_colour_was_not_picked_has_none(client, studio):
    bag(client, amount="5", srgb="#cfcfcf")
    assert Lot.objects.of(studio).get(waste=False).srgb == ""


def test_the_same_line_twice_is_one_bag(client, studio):
    key = str(uuid.uuid4())
    for _ in range(2):
        bag(client, key=key, amount="5", srgb="#47523a", has_colour="1")
    assert Lot.objects.of(studio).filter(waste=False).count() == 1
    assert Item.objects.of(studio).filter(name="green 2").count() == 0


def test_notions_come_in_pieces_and_in_metres(client, studio):
    post(client, "stash/stocktake/", kind="notion", notion="eyes", amount="12", size="6 mm", name="black beads")
    post(client, "stash/stocktake/", kind="notion", notion="wire", amount="3,5 m", size="0.8", name="soft wire")
    eyes, wire = Lot.objects.of(studio).filter(waste=False).order_by("made_at")
    assert (eyes.on_hand, eyes.item.unit, eyes.item.size_mm) == (12, "pc", 6)
    assert (wire.on_hand, wire.item.unit) == (3500, "mm")


@pytest.mark.parametrize(
    ("given", "told"),
    [
        ({"amount": "-4"}, "below nothing"),
        ({"amount": "0"}, "more than nothing"),
        ({"amount": "4 hands"}, "Write"),
        ({"amount": "1.234,5"}, "Write"),
        ({"amount": "99999999999"}, "out of range"),
        ({"form": ""}, "Choose what it is"),
        ({"form": "cloud"}, "Choose what it is"),
    ],
)
def test_a_line_that_cannot_be_read_says_what_to_change_and_keeps_the_rest(client, studio, given, told):
    answer = bag(client, **{"amount": "42", "name": "Kelp", "breed": "corriedale", **given})
    page = text(answer)
    assert answer.status_code == 422
    assert told in page
    assert 'role="alert"' in page
    assert 'value="Kelp"' in page
    assert "corriedale" in page
    if "amount" in given:
        assert f'value="{given["amount"]}"' in page
    assert not Lot.objects.of(studio).filter(waste=False).exists()
    assert not Entry.objects.of(studio).exists()


def test_a_comma_is_a_decimal_mark(client, studio):
    bag(client, amount="7,5")
    assert Lot.objects.of(studio).get(waste=False).on_hand == D("7.5")


def test_a_picture_is_made_smaller_and_says_no_place(client, studio):
    bag(client, amount="5", photo=photo())
    lot = Lot.objects.of(studio).get(waste=False)
    with Image.open(lot.photo.path) as kept:
        assert max(kept.size) == 1600
        assert not dict(kept.getexif())
    shown = client.get(f"{client.base}picture/{lot.photo.name.rpartition('/')[2]}")
    assert shown.status_code == 200
    assert shown["X-Content-Type-Options"] == "nosniff"


def test_what_is_no_picture_is_told_and_nothing_is_stored(client, studio):
    wrong = SimpleUploadedFile("x.jpg", b"<svg onload='x'/>", "image/jpeg")
    answer = bag(client, amount="5", photo=wrong)
    assert answer.status_code == 422
    assert "no picture that can be read" in text(answer)
    assert not Lot.objects.of(studio).filter(waste=False).exists()


def test_a_picture_of_another_studio_is_not_there(client):
    other = signed_in(make.studio_owner("Dune", "ana"))
    bag(other, amount="5", photo=photo())
    name = Lot.objects.get(photo__gt="").photo.name.rpartition("/")[2]
    assert other.get(f"{other.base}picture/{name}").status_code == 200
    for way in (name, f"../{Lot.objects.get(photo__gt='').photo.name}", "../../etc/passwd", f"{name}%00"):
        assert client.get(f"{client.base}picture/{way}").status_code == 404


# --- the shelf


def shelf(client, **sieve) -> list[str]:
    answer = client.get(client.base + "stash/", sieve, headers={"HX-Request": "true"})
    assert answer.status_code == 200
    assert "<html" not in text(answer)
    return re.findall(
        r"</span><b>([^<]+)</b>", text(answer)
    )  # the bags; a drawer of the chest has none before its name


def test_the_shelf_is_sieved_by_each_of_its_ways(client, owner):
    make.lot(owner, "moss", form="sliver")
    make.lot(owner, "chalk", srgb="#f1ece0", drawer="C3")
    make.lot(owner, "soot", grams=None, srgb="#26211f")
    make.notion_lot(owner)
    assert set(shelf(client)) == {"moss", "chalk", "soot", "black eyes"}
    assert shelf(client, words="mo") == ["moss"]
    assert shelf(client, words="merino sliver") == ["moss"]
    assert shelf(client, form="sliver") == ["moss"]
    assert shelf(client, drawer="C3") == ["chalk"]
    assert shelf(client, hue="green") == ["moss"]
    assert "soot" not in shelf(client, free=1)
    assert shelf(client, words="nothing like it") == []


@pytest.mark.parametrize("by", ["breed", "form", "hue", "drawer", "nonsense"])
def test_the_shelf_is_grouped_in_each_way(client, owner, by):
    make.lot(owner, "moss")
    make.notion_lot(owner)
    assert set(shelf(client, by=by)) == {"moss", "black eyes"}


def test_a_long_shelf_comes_piece_by_piece_and_misses_nothing(client, owner, monkeypatch):
    monkeypatch.setattr("wembit.web.stash.shelf.views.MOST_SHOWN", 4)
    for number in range(11):
        make.lot(owner, f"wool {number:02}")
    first = client.get(client.base + "stash/")
    assert "7 more bags" in text(first)
    assert ">11</span> bags" in text(first)
    names = [name for start in (0, 4, 8) for name in shelf(client, **{"from": start})]
    assert names == [f"wool {number:02}" for number in range(11)]
    assert shelf(client, **{"from": "x"}) == names[:4]
    assert shelf(client, **{"from": 99}) == []


def test_the_shelf_draws_area_as_grams_and_hatches_what_is_promised(client, owner):
    big = make.lot(owner, "moss", "90")
    make.lot(owner, "pine", "10")
    page = text(client.get(client.base + "stash/"))
    wide = [float(w) for w in re.findall(r'<svg width="([\d.]+)" height="[\d.]+" viewBox="[^"]+" class="wool"', page)]
    assert wide[0] / wide[1] == pytest.approx((90 / 10) ** 0.5, rel=0.02)
    assert "hatch" not in page.split('id="boards"')[1]
    make.project(owner, make.figure(owner, fibre=big), count=5)
    owner.studio.pressed()
    assert "hatch" in text(client.get(client.base + "stash/")).split('id="boards"')[1]


def test_what_is_kept_of_the_shelf_is_new_after_every_press(client, owner):
    lot = make.lot(owner, "moss", "50")
    assert "50 g" in text(client.get(client.base + "stash/"))
    post(client, f"stash/lot/{lot.pk}/take/", amount="8")
    page = text(client.get(client.base + "stash/"))
    assert "42 g" in page
    assert "50 g" not in page


# --- a bag


def test_taking_putting_back_weighing_splitting_and_throwing_away(client, owner):
    lot = make.lot(owner, grams="50")
    steps = "take 7,5 42.5|put-back 2.5 45|weigh 40 40|split 15 25|throw-away 5 20"
    for verb, amount, left in (step.split() for step in steps.split("|")):
        assert post(client, f"stash/lot/{lot.pk}/{verb}/", amount=amount).status_code == 302, verb
        lot.refresh_from_db()
        assert lot.on_hand == D(left), verb
    other = Lot.objects.of(owner.studio).filter(waste=False).exclude(pk=lot.pk).get()
    assert other.on_hand == 15
    post(client, f"stash/lot/{lot.pk}/merge/", into=str(other.pk))
    other.refresh_from_db()
    assert other.on_hand == 35
    page = text(client.get(f"{client.base}stash/lot/{lot.pk}/"))
    kinds = ["opening", "pulled", "returned", "recount", "split out", "discarded", "merged out"]
    assert all(kind in page for kind in kinds)
    assert page.count("<tr") == 8


@pytest.mark.parametrize(
    ("amount", "told"),
    [
        ("-3", "below nothing"),
        ("0", "more than nothing"),
        ("", "Write how much"),
        ("1e9", "Write"),
        ("9999999", "more than"),
        ("1,000.5", "Write"),
        ("51", "weigh the bag again"),
    ],
)
def test_an_amount_that_cannot_be_taken_is_told_and_kept(client, owner, amount, told):
    lot = make.lot(owner, grams="50")
    answer = post(client, f"stash/lot/{lot.pk}/take/", amount=amount)
    assert answer.status_code == 422
    assert told in text(answer)
    assert f'value="{amount}"' in text(answer)
    lot.refresh_from_db()
    assert lot.on_hand == 50


def test_a_bag_emptied_meanwhile_says_what_is_left_and_offers_to_weigh(client, owner):
    lot = make.lot(owner, grams="50")
    post(client, f"stash/lot/{lot.pk}/take/", amount="48")
    answer = post(client, f"stash/lot/{lot.pk}/take/", amount="5")
    assert answer.status_code == 422
    assert "The book says 2 g" in text(answer)
    assert "It weighs this" in text(answer)


def test_taking_what_is_promised_asks_once_then_does_it(client, owner):
    lot = make.lot(owner, grams="10")
    make.project(owner, make.figure(owner, fibre=lot), count=4, name="Market day")
    asked = post(client, f"stash/lot/{lot.pk}/take/", amount="9")
    assert asked.status_code == 422
    assert "promised to Market day" in text(asked)
    assert 'name="anyway"' in text(asked)
    assert post(client, f"stash/lot/{lot.pk}/take/", amount="9", anyway="1").status_code == 302
    lot.refresh_from_db()
    assert lot.on_hand == 1


def test_weighing_below_what_is_promised_says_whose_promise_broke(client, owner):
    lot = make.lot(owner, grams="50")
    make.project(owner, make.figure(owner, fibre=lot), count=4, name="Market day")
    page = words(text(post(client, f"stash/lot/{lot.pk}/weigh/", amount="6", follow=True)))
    assert re.search(r"[\d.]+ g that were promised to Market day are no longer there", page)
    assert "no longer" not in text(post(client, f"stash/lot/{lot.pk}/weigh/", amount="6.5", follow=True))


def test_what_happened_on_another_day_is_written_on_that_day(client, owner):
    lot = make.lot(owner, grams="50")
    yesterday = clock.today(owner.studio) - dt.timedelta(1)
    post(client, f"stash/lot/{lot.pk}/take/", amount="5", happened_at=yesterday.isoformat())
    entry = Movement.objects.get(lot=lot, kind="pulled").entry
    assert entry.happened_at.date() == yesterday
    assert entry.recorded_at.date() == clock.today(owner.studio)
    ahead = (clock.today(owner.studio) + dt.timedelta(2)).isoformat()
    assert post(client, f"stash/lot/{lot.pk}/take/", amount="5", happened_at=ahead).status_code == 422


def test_a_line_is_taken_back_from_the_bag_itself_and_by_z(client, owner):
    lot = make.lot(owner, grams="50")
    post(client, f"stash/lot/{lot.pk}/take/", amount="5")
    entry = Entry.objects.get(verb="pull")
    post(client, f"stash/entry/{entry.pk}/take-back/", lot=str(lot.pk))
    post(client, f"stash/lot/{lot.pk}/take/", amount="7")
    answer = post(client, "undo/", follow=True)
    assert "Taken back" in text(answer)
    lot.refresh_from_db()
    assert lot.on_hand == 50
    assert "nothing of today to take back" in text(post(make_client_of_tove(owner), "undo/", follow=True))


def make_client_of_tove(owner):
    return signed_in(make.member(owner.studio))


def test_a_bag_and_its_item_are_described_anew(client, owner):
    lot = make.lot(owner, grams="50")
    given = {"name": "Dark moss", "breed": "shetland", "form": "tops", "srgb": "#3c4a2c", "has_colour": "1", "dye_lot": "7b",
             "drawer": "New drawer", "minimum": "20", "linear_g_m": "18,5"}  # fmt: skip
    assert post(client, f"stash/lot/{lot.pk}/describe/", **given).status_code == 302
    lot = Lot.objects.select_related("item", "drawer").get(pk=lot.pk)
    assert (lot.item.name, lot.item.breed, lot.item.minimum, lot.item.linear_g_m) == (
        "Dark moss",
        "shetland",
        20,
        D("18.5"),
    )
    assert (lot.srgb, lot.dye_lot, lot.drawer.name) == ("#3c4a2c", "7b", "New drawer")
    post(client, f"stash/lot/{lot.pk}/describe/", **{**given, "has_colour": "", "linear_g_m": ""})
    lot = Lot.objects.select_related("item").get(pk=lot.pk)
    assert lot.srgb == ""
    assert lot.hue == ""
    assert lot.item.linear_g_m is None


def test_a_name_that_another_item_has_is_told(client, owner):
    make.lot(owner, "pine")
    lot = make.lot(owner, "moss")
    given = {"name": "PINE", "breed": "merino", "form": "tops", "minimum": "0"}
    answer = post(client, f"stash/lot/{lot.pk}/describe/", **given)
    assert answer.status_code == 422
    assert "There is a PINE of that kind" in text(answer)
    answer = post(client, f"stash/lot/{lot.pk}/describe/", **{**given, "name": "  "})
    assert answer.status_code == 422
    assert "Give it a name" in text(answer)
    assert Item.objects.get(pk=lot.item_id).name == "moss"


def test_what_is_below_its_least_amount_stands_on_today(client, owner):
    lot = make.lot(owner, grams="50")
    post(client, f"stash/lot/{lot.pk}/describe/", name="moss", minimum="60", srgb="#6f7d43", has_colour="1")
    assert "you want" in text(client.get(client.base))
    assert "moss" in text(client.get(client.base))


def test_a_tray_for_htmx_is_no_whole_page(client, owner):
    lot = make.lot(owner)
    tray = client.get(f"{client.base}stash/lot/{lot.pk}/", headers={"HX-Request": "true"})
    assert "<html" not in text(tray)
    assert "What happened here" in text(tray)


# --- a parcel


def test_a_parcel_without_an_order_makes_new_bags_in_the_old_drawer(client, owner):
    moss, eyes = make.lot(owner, drawer="B1"), make.notion_lot(owner)
    given = {
        "item_0": str(moss.item_id),
        "amount_0": "1 oz",
        "dye_lot_0": "77",
        "item_1": str(eyes.item_id),
        "amount_1": "30",
    }
    assert post(client, "stash/delivery/", **given).status_code == 302
    new = Lot.objects.get(item=moss.item, dye_lot="77")
    assert new.on_hand == D("28.350")
    assert new.drawer.name == "B1"
    assert new.srgb == moss.srgb
    assert Entry.objects.filter(verb="received").count() == 1


@pytest.mark.parametrize(
    ("given", "told"),
    [
        ({}, "nothing"),
        ({"amount_0": "5"}, "Choose what came"),
        ({"amount_0": "-5", "item_0": "moss"}, "below nothing"),
        ({"amount_0": "", "item_0": "moss"}, "Write how much"),
    ],
)
def test_a_parcel_that_cannot_be_read_is_told(client, owner, given, told):
    moss = make.lot(owner)
    given = {key: str(moss.item_id) if value == "moss" else value for key, value in given.items()}
    answer = post(client, "stash/delivery/", **given)
    assert answer.status_code == 422
    assert told.lower() in text(answer).lower()
    assert Lot.objects.of(owner.studio).filter(waste=False).count() == 1
