"""The days ahead as a calendar at a secret address, which can be taken back and shows no other studio's."""

import datetime as dt
import re

import pytest
from django.test import Client

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.restock.models import Feed
from wembit.web.studio.models import VIEWER


@shared
def moss(owner):
    return make.lot(owner, "moss", "4")


@shared
def project(owner, moss):
    make.offer(owner, moss.item, "50")
    return make.project(owner, make.figure(owner, fibre=moss, length=60), name="Fair; north, pier", days=40)


def address(answer) -> str:
    return re.search(r'value="http://testserver(/days/[\w-]+\.ics)"', text(answer))[1]


def read(path):
    """As a calendar reads it: without a session."""
    answer = Client().get(path)
    return answer, re.sub("\r\n[ \t]", "", answer.content.decode())


def test_it_holds_what_begins_is_due_and_is_to_be_ordered(client, studio, project):
    path = address(post(client, "restock/dates/address/"))
    answer, days = read(path)
    assert answer["Content-Type"].startswith("text/calendar")
    assert f"DTSTART;VALUE=DATE:{project.due:%Y%m%d}" in days
    assert r"SUMMARY:Fair\; north\, pier is due" in days
    assert r"SUMMARY:Begin Fair\; north\, pier" in days
    assert "SUMMARY:Last day to order moss" in days
    assert days.count("BEGIN:VEVENT") == 3
    assert "Last day to order moss" in words(get(client, "restock/dates/"))


def test_what_moves_keeps_its_name(client, studio, project):
    path = address(post(client, "restock/dates/address/"))
    _, before = read(path)
    type(project).objects.filter(pk=project.pk).update(due=project.due + dt.timedelta(3))
    studio.pressed()
    _, after = read(path)
    assert re.findall("UID:(.*)\r", before) == re.findall("UID:(.*)\r", after)
    assert f"{project.due + dt.timedelta(3):%Y%m%d}" in after


def test_another_address_ends_the_first_and_none_is_none(client, studio, project):
    first = address(post(client, "restock/dates/address/"))
    second = address(post(client, "restock/dates/address/"))
    assert read(first)[0].status_code == 404
    assert read(second)[0].status_code == 200
    assert second.split("/")[-1] not in get(client, "restock/dates/"), "it is shown once"
    post(client, "restock/dates/no-address/")
    assert read(second)[0].status_code == 404
    assert not Feed.objects.exists()


def test_only_its_hash_is_kept(client, project):
    path = address(post(client, "restock/dates/address/"))
    assert Feed.objects.get().token_hash not in path
    assert Client().get(f"/days/{Feed.objects.get().token_hash}.ics").status_code == 404


def test_who_leaves_the_studio_takes_the_address_along(client, studio, owner, project):
    tove = make.member(studio)
    path = address(post(signed_in(tove), "restock/dates/address/"))
    assert read(path)[0].status_code == 200
    post(client, f"house/members/{tove.pk}/remove/", sure="1")
    assert read(path)[0].status_code == 404


def test_a_viewer_has_one_too_and_another_studio_s_days_are_not_in_it(client, studio, project):
    viewer = signed_in(make.member(studio, VIEWER))
    assert read(address(post(viewer, "restock/dates/address/")))[0].status_code == 200
    other = signed_in(make.studio_owner("Reedmoor", "una"))
    _, days = read(address(post(other, "restock/dates/address/")))
    assert "VEVENT" not in days
    assert "Reedmoor" in days


def test_parcels_on_their_way_are_in_it(client, owner, studio, moss, project):
    offer = moss.item.offers.get()
    post(client, "restock/list/", item=str(moss.item_id), **{f"pack_{offer.pk}": "1"})
    order = offer.supplier.orders.get()
    post(client, f"restock/order/{order.pk}/send/")
    order.refresh_from_db()
    _, days = read(address(post(client, "restock/dates/address/")))
    assert f"DTSTART;VALUE=DATE:{order.expected_on:%Y%m%d}" in days
    assert "SUMMARY:Parcel from" in days
    assert order.expected_on >= clock.today(studio)


@pytest.mark.parametrize("token", ["x", "x" * 400, "..%2f", "é"])
def test_a_guess_is_a_404(db, token):
    assert Client().get(f"/days/{token}.ics").status_code == 404
