"""The door and the house: the first visit, signing in, links, roles, settings, and two makers with one tablet."""

import re

import pytest
from django.contrib.auth import authenticate
from django.core.management import call_command
from django.test import Client

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, told, words
from wembit.web.stash.models import Entry, Lot
from wembit.web.studio.models import Link, Member, Studio, User


@pytest.fixture
def owner(db):
    """Committed where a test commits."""
    return make.studio_owner()


FIRST = {"studio_name": "Saltgrass", "name": "Mira", "username": "Mira", "password": make.PASSWORD,
         "timezone": "Europe/London", "currency": "eur"}  # fmt: skip


@pytest.mark.django_db
def test_the_first_visitor_makes_the_studio_and_is_its_owner():
    client = Client()
    assert client.get("/").url == "/first/"
    assert client.post("/first/", FIRST).status_code == 302
    studio, owner = Studio.objects.get(), Member.objects.get()
    assert (studio.slug, studio.currency, owner.role, owner.user.username) == ("saltgrass", "EUR", "owner", "mira")
    assert client.get("/", follow=True).redirect_chain[-1][0] == "/s/saltgrass/"
    assert "Put the first bag on the shelf" in text(client.get("/s/saltgrass/"))
    assert Client().get("/first/").status_code == 404


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("wrong", "said"),
    [
        ({"studio_name": ""}, "Give the studio a name"),
        ({"password": "short"}, "at least 8 characters"),
        ({"password": "password"}, "common"),
        ({"username": "m i r a"}, "letters and digits"),
        ({"timezone": "Atlantis"}, "time zone"),
        ({"currency": "€"}, "three letters"),
    ],
)
def test_a_first_visit_that_cannot_be_read_is_told_and_kept(wrong, said):
    answer = Client().post("/first/", {**FIRST, **wrong})
    assert said in told(answer)
    assert 'value="Mira"' in text(answer)
    assert make.PASSWORD not in text(answer)
    assert not Studio.objects.exists()
    assert not User.objects.exists()


def test_signing_in_leads_to_where_one_wanted_to_be(owner):
    wanted = "/s/saltgrass/stash/"
    client = Client()
    assert client.get(wanted).url == f"/sign-in/?next={wanted}"
    given = {"username": "MIRA", "password": make.PASSWORD, "next": wanted}
    assert client.post("/sign-in/", given).url == wanted
    assert Client().post("/sign-in/", {**given, "next": "https://elsewhere.example/"}).url == "/"
    assert "do not go together" in told(Client().post("/sign-in/", {**given, "password": "wrong"}))
    client.post("/sign-out/")
    assert client.get(wanted).status_code == 302


def test_a_page_is_not_kept_on_the_device_and_names_its_policy(client):
    answer = client.get(client.base)
    assert answer["Cache-Control"] == "no-store"
    assert "HX-Request" in answer["Vary"]
    policy = answer["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "frame-ancestors 'none'" in policy
    assert "unsafe" not in policy


def link_in(answer) -> str:
    return re.search(r'value="http://testserver(/link/[^"]+)"', answer.content.decode())[1]


def test_a_new_member_joins_by_a_link_that_works_once(client, owner):
    answer = post(client, "house/invite/", role="viewer")
    address = link_in(answer)
    assert Link.objects.get().token_hash not in answer.content.decode(), "only the hash is kept"
    given = {"username": "vera", "name": "Vera", "password": make.PASSWORD}
    assert Client().get(address).status_code == 200
    assert "letters" in told(Client().post(address, {**given, "username": "?"}))
    visitor = Client()
    assert visitor.post(address, given).status_code == 302
    assert Member.objects.get(user__username="vera").role == "viewer"
    assert visitor.get(client.base).status_code == 200
    assert Client().get(address).status_code == 404
    assert Client().post(address, given).status_code == 404
    assert Client().get("/link/nonsense/").status_code == 404


def test_a_member_of_two_studios_switches_between_them(client, owner):
    dune = make.studio_owner("Dune", "ana")
    address = link_in(post(signed_in(dune), "house/invite/", role="maker"))
    client.post(address, {})
    assert Member.objects.filter(user=owner.user).count() == 2
    page = get(client, "house/")
    assert "/s/dune/" in page
    assert client.get("/s/dune/").status_code == 200
    make.lot(dune, "marram")
    assert "marram" in text(client.get("/s/dune/stash/"))
    assert "marram" not in get(client, "stash/")


def test_a_password_is_chosen_anew_by_a_link_of_the_owner(client, owner):
    tove = make.member(owner.studio)
    address = link_in(post(client, f"house/members/{tove.pk}/password/"))
    assert "at least 8 characters" in told(Client().post(address, {"password": "short"}))
    assert Client().post(address, {"password": "another needle 40"}).status_code == 302
    assert authenticate(None, username="tove", password="another needle 40") == tove.user
    assert Client().post(address, {"password": "a third needle 36"}).status_code == 404


def test_roles_change_and_a_studio_keeps_an_owner(client, owner):
    tove = make.member(owner.studio)
    post(client, f"house/members/{tove.pk}/role/", role="viewer")
    tove.refresh_from_db()
    assert tove.role == "viewer"
    assert "needs an owner" in text(post(client, f"house/members/{owner.pk}/role/", role="maker"))
    assert "needs an owner" in text(post(client, f"house/members/{owner.pk}/remove/"))
    assert "Choose what the member" in text(post(client, f"house/members/{tove.pk}/role/", role="queen"))
    assert post(client, f"house/members/{tove.pk}/remove/", sure="on").status_code == 302
    assert not Member.objects.filter(pk=tove.pk).exists()


def test_who_stands_in_the_ledger_stays(client, owner):
    tove = make.member(owner.studio)
    make.lot(tove)
    assert "stands in the ledger" in text(post(client, f"house/members/{tove.pk}/remove/", sure="on"))
    assert Member.objects.filter(pk=tove.pk).exists()


def test_who_was_let_go_is_out_at_once(client, owner):
    tove = make.member(owner.studio)
    hers = signed_in(tove)
    assert hers.get(hers.base).status_code == 200
    post(client, f"house/members/{tove.pk}/remove/", sure="on")
    assert hers.get(hers.base).status_code == 404


def test_settings_change_how_every_number_is_written(client, owner):
    lot = make.lot(owner, grams="56.7")
    given = {
        "name": "Saltgrass",
        "timezone": "Europe/Oslo",
        "currency": "NOK",
        "anyway": "1",
        "decimal_mark": ",",
        "weight_unit": "g",
        "length_unit": "cm",
    }
    assert post(client, "house/settings/", **given).status_code == 302
    assert "56,7 g" in words(get(client, "stash/"))
    post(client, "house/settings/", **{**given, "weight_unit": "oz"})
    assert "2 oz" in words(get(client, "stash/"))
    post(client, f"stash/lot/{lot.pk}/take/", amount="1")
    lot.refresh_from_db()
    assert float(lot.on_hand) == pytest.approx(56.7 - 28.3495, abs=0.001)
    assert "three letters" in told(post(client, "house/settings/", **{**given, "currency": "crowns"}))


def test_weights_filled_in_by_the_page_are_read_as_they_were_meant(client, owner):
    """A studio that weighs in ounces gets the grams of a pack with their unit, so that nothing is taken 28 times."""
    owner.studio.weight_unit = "oz"
    owner.studio.save()
    lot = make.lot(owner, grams="50")
    post(client, f"stash/lot/{lot.pk}/describe/", name="moss", minimum="20 g")
    shown = re.search(r'name="minimum"[^>]*? value="([^"]*)"', get(client, f"stash/lot/{lot.pk}/"))[1]
    post(client, f"stash/lot/{lot.pk}/describe/", name="moss", minimum=shown)
    lot.item.refresh_from_db()
    assert shown == "20 g"
    assert lot.item.minimum == 20


def test_a_pinch_shown_once_is_understood_everywhere(client, owner):
    assert "below nothing" in told(post(client, "house/pinch/", ten="-2"))
    post(client, "house/pinch/", ten="0,4")
    owner.refresh_from_db()
    assert float(owner.pinch_g) == pytest.approx(0.04)
    assert not owner.keys_on
    lot = make.lot(owner, grams="50")
    post(client, f"stash/lot/{lot.pk}/take/", amount="a pinch")
    lot.refresh_from_db()
    assert float(lot.on_hand) == pytest.approx(49.96)


@pytest.mark.parametrize(
    ("asked", "answer"),
    [
        ({"amount": "7,5", "measure": "weight", "unit": "g"}, "7.5 g"),
        ({"amount": "1 oz", "measure": "weight", "unit": "g"}, "28.35 g"),
        ({"amount": '3 1/2"', "measure": "length", "unit": "mm"}, "88.9 mm"),
        ({"amount": "3 in / 9 cm", "measure": "length", "unit": "mm"}, "9 cm"),
        ({"amount": "-1", "measure": "weight", "unit": "g"}, "below nothing"),
        ({"amount": "1.000,5", "measure": "weight", "unit": "g"}, "Write"),
        ({"amount": "12", "measure": "count"}, "12 pieces"),
    ],
)
def test_a_field_says_what_it_understood(client, asked, answer):
    assert answer in words(text(client.get(client.base + "understood/", {"name": "amount", **asked})))


# --- two makers with one tablet


@pytest.fixture
def tablet(owner):
    make.member(owner.studio)
    client = Client()
    client.base = "/s/saltgrass/"
    client.post("/sign-in/", {"username": "mira", "password": make.PASSWORD})
    return client


def test_the_tablet_changes_hands_with_one_touch(tablet, owner):
    lot = make.lot(owner, grams="50")
    assert "do not go together" in told(post(tablet, "second-hand/", username="tove", password="wrong"))
    post(tablet, "second-hand/", username="tove", password=make.PASSWORD)
    tove = Member.objects.get(user__username="tove")
    assert "In hand: </span>Tove" in get(tablet)
    post(tablet, f"stash/lot/{lot.pk}/take/", amount="2")
    post(tablet, f"hand/{owner.pk}/")
    post(tablet, f"stash/lot/{lot.pk}/take/", amount="3")
    by = list(Entry.objects.filter(verb="pull").order_by("recorded_at").values_list("by", flat=True))
    assert by == [tove.pk, owner.pk]
    post(tablet, f"hand/{tove.pk}/")
    post(tablet, "undo/")
    lot.refresh_from_db()
    assert lot.on_hand == 47, "Z takes back the last entry of the maker in hand"
    assert Lot.objects.get(pk=lot.pk).on_hand == 47
    assert post(tablet, "house/invite/", role="maker").status_code == 403


def test_nobody_takes_the_hand_of_one_who_has_not_signed_in_here(tablet, owner):
    tove = Member.objects.get(user__username="tove")
    assert post(tablet, f"hand/{tove.pk}/").status_code == 404
    make.studio_owner("Dune", "ana")
    assert "do not go together" in told(post(tablet, "second-hand/", username="ana", password=make.PASSWORD))


def test_a_new_password_takes_the_tablet_out_of_a_hand(tablet, owner):
    post(tablet, "second-hand/", username="tove", password=make.PASSWORD)
    tove = User.objects.get(username="tove")
    tove.set_password("another needle 40")
    tove.save()
    assert "In hand: </span>Mira" in get(tablet)


# --- the demo, and what goes wrong


@pytest.mark.whole
def test_the_demo_is_built_anew_for_today_and_only_when_asked(transactional_db):
    make.studio_owner("Mine", "ana")
    call_command("demo")
    assert [studio.name for studio in Studio.objects.all()] == ["Mine"]
    call_command("demo", "--anew")
    assert [studio.name for studio in Studio.objects.all()] == ["Saltgrass"]
    assert Entry.objects.count() > 300
    first = Studio.objects.get().pk
    call_command("demo")
    assert Studio.objects.get().pk == first, "what is there stays"


def test_what_is_not_there_and_what_broke_have_pages_of_their_own(client, monkeypatch):
    assert "That is not here" in text(client.get(client.base + "nothing/"))
    assert client.get("/health/").content == b"ok"
    client.raise_request_exception = False
    monkeypatch.setattr("wembit.web.today.views.things_now", lambda studio: 1 / 0)
    answer = client.get(client.base)
    assert answer.status_code == 500
    assert "Traceback" not in text(answer)
