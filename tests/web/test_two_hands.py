"""Two makers at one layer, one part, one project, one shortage, one order; a press twice; a tablet that has changed hands."""

import re
import uuid
from decimal import Decimal as D

import pytest
from django.test import Client

from tests.web import factories as make
from tests.web.forms import form_at, forms_of
from tests.web.helpers import get, text, told, words
from tests.web.shared import shared
from wembit.core.craft.materials import FIRMNESS_WORDS
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import Making, PieceLayer
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import newest_version, parts_of
from wembit.web.plan.actions.close_project import drop_project
from wembit.web.plan.models import Project, StandIn
from wembit.web.restock.models import OrderLine
from wembit.web.stash.models import Movement


@shared
def moss(owner):
    return make.lot(owner, "moss", "100")


@shared
def project(owner, moss):
    return make.project(owner, make.figure(owner, fibre=moss, length=60), count=3)


@pytest.fixture
def tove(owner, client) -> Client:
    other = Client()
    other.force_login(make.member(owner.studio).user)
    other.base = client.base
    return other


def form(client, page_address, action):
    """The fields of the form with that address, as the page has drawn them."""
    page = get(client, page_address)
    return next(dict(form.fields) for form in forms_of(page) if action in form.action)


def test_what_another_took_meanwhile_is_said_before_it_is_doubled(client, tove, owner, project, moss):
    making = begin_making(owner, project.pk)
    layer = PieceLayer.objects.get()
    mine, hers = (form(hand, f"bench/{making.pk}/", "/take/") for hand in (client, tove))
    address = f"{client.base}bench/layer/{layer.pk}/take/"
    assert tove.post(address, {**hers, "amount": "3"}).status_code == 302
    answer = client.post(address, {**mine, "amount": "3"})
    assert "Tove has taken 3 g for it meanwhile" in told(answer)
    assert Movement.objects.filter(kind="pulled").count() == 1
    again = next(dict(form.fields) for form in forms_of(answer.content.decode()) if "/take/" in form.action)
    assert client.post(address, again | {"amount": "3"}).status_code == 302
    assert Movement.objects.filter(kind="pulled").count() == 2
    assert client.post(address, again | {"amount": "3"}).status_code == 302, "the same press again says no fault"
    assert Movement.objects.filter(kind="pulled").count() == 2


def test_a_page_left_open_brings_no_old_number_back(client, tove, project):
    address = f"{client.base}plan/{project.pk}/change/"
    mine, hers = (form(hand, f"plan/{project.pk}/", "/change/") for hand in (client, tove))
    tove.post(address, hers | {"count": "5"})
    client.post(address, mine | {"name": "Fair"})
    project.refresh_from_db()
    assert (project.name, project.count) == ("Fair", 5)


def test_the_same_field_changed_by_two_is_asked(client, tove, project):
    address = f"{client.base}plan/{project.pk}/change/"
    mine, hers = (form(hand, f"plan/{project.pk}/", "/change/") for hand in (client, tove))
    tove.post(address, hers | {"count": "5"})
    answer = client.post(address, mine | {"count": "8"})
    assert "changed meanwhile, to 5" in told(answer)
    again = next(dict(form.fields) for form in forms_of(answer.content.decode()) if "/change/" in form.action)
    assert again["count"] == "8", "what was entered is kept"
    assert client.post(address, again).status_code == 302
    project.refresh_from_db()
    assert project.count == 8


def test_a_closed_project_is_not_changed(client, owner, project):
    mine = form(client, f"plan/{project.pk}/", "/change/")
    drop_project(owner, project.pk)
    answer = client.post(f"{client.base}plan/{project.pk}/change/", mine | {"name": "Fair"}, follow=True)
    assert "it cannot be changed any more" in words(answer.content.decode())
    project.refresh_from_db()
    assert project.name == "Market"


def test_a_shortage_is_answered_once(client, tove, owner, moss):
    project = make.project(owner, make.figure(owner, fibre=moss, length=60), count=12)
    make.lot(owner, "olive", "900", srgb="#6b7a3a")
    page = f"restock/project/{project.pk}/{moss.item_id}/"
    mine, hers = (form(hand, page, "/accept/") for hand in (client, tove))
    address = f"{client.base}{page}accept/"
    assert tove.post(address, hers).status_code == 302
    assert "answered meanwhile" in told(client.post(address, mine))
    assert StandIn.objects.count() == 1
    assert tove.post(address, hers).status_code == 302, "the same press again says no fault"
    assert StandIn.objects.count() == 1


def test_packs_on_a_list_are_not_doubled_in_silence(client, tove, owner, moss):
    make.project(owner, make.figure(owner, fibre=moss, length=60), count=12)
    make.offer(owner, moss.item, "500")
    mine, hers = (form(hand, f"restock/item/{moss.item_id}/", "/list/") for hand in (client, tove))
    address = next(f.action for f in forms_of(get(client, f"restock/item/{moss.item_id}/")) if "/list/" in f.action)
    assert tove.post(address, hers).status_code == 302
    answer = client.post(address, mine)
    assert "500 g of it were put on the list meanwhile" in told(answer)
    assert OrderLine.objects.get().count == 1


@shared
def ball(maker, owner, moss):
    return make.figure(owner, fibre=moss, length=60)


def sizes_of(figure):
    return parts_of(newest_version(figure))[0].shape


def part_form(client, figure, page=None):
    """The fields that the part's form always sends, and its address."""
    page = page or get(client, f"figures/{figure.pk}/?part=ball")
    form = form_at(page, "/part/ball/")
    return {name: form.fields[name] for name in ("drawn_at", "mended") if name in form.fields}


def test_a_size_that_another_has_changed_is_asked_about(client, tove, ball):
    mine, hers = (part_form(hand, ball) for hand in (client, tove))
    address = f"{client.base}figures/{ball.pk}/part/ball/"
    assert tove.post(address, {**hers, "diameter_mm": "50"}).status_code == 302
    answer = client.post(address, {**mine, "diameter_mm": "40"})
    assert answer.status_code == 422
    assert "Tove has changed this to 50 mm since the page was drawn" in told(answer)
    assert 'value="40"' in text(answer), "what was entered is still there"
    assert sizes_of(ball)["diameter_mm"] == 50
    again = {**part_form(client, ball, text(answer)), "diameter_mm": "40"}
    assert client.post(address, again).status_code == 302
    assert sizes_of(ball)["diameter_mm"] == 40


def test_it_is_asked_about_also_when_the_version_was_begun_meanwhile(client, tove, owner, ball):
    """Her change makes the next version; what the other has changed in the one before is hers to decide all the same."""
    mine, hers = (part_form(hand, ball) for hand in (client, tove))
    address = f"{client.base}figures/{ball.pk}/part/ball/"
    assert tove.post(address, {**hers, "diameter_mm": "44"}).status_code == 302
    begin_making(owner, make.project(owner, ball).pk)
    assert "Tove has changed this to 44 mm" in told(client.post(address, {**mine, "diameter_mm": "50"}))
    assert newest_version(ball).number == 1
    assert client.post(address, {**mine, "firmness": "soft"}).status_code == 302
    assert newest_version(ball).number == 2


def test_other_fields_equal_values_and_ones_own_changes_are_not_asked_about(client, tove, ball):
    mine, hers = (part_form(hand, ball) for hand in (client, tove))
    address = f"{client.base}figures/{ball.pk}/part/ball/"
    assert tove.post(address, {**hers, "name": "globe", "count": "2"}).status_code == 302
    for given in ({"diameter_mm": "41"}, {"diameter_mm": "42"}, {"count": "2"}, {"firmness": "soft"}):
        assert client.post(address, {**mine, **given}).status_code == 302, given
    assert "Tove has changed this" in told(client.post(address, {**mine, "count": "3"}))
    assert "Tove has changed this to globe" in told(client.post(address, {**mine, "name": "orb"}))


def test_what_another_has_changed_is_said_in_words(client, tove, ball):
    mine, hers = (part_form(hand, ball) for hand in (client, tove))
    address = f"{client.base}figures/{ball.pk}/part/ball/"
    assert tove.post(address, {**hers, "firmness": "very_firm", "count": "4"}).status_code == 302
    firm = told(client.post(address, {**mine, "firmness": "soft"}))
    assert f"Tove has changed this to {FIRMNESS_WORDS['very_firm']} since" in firm
    assert "very_firm" not in firm
    assert "Tove has changed this to 4 since" in told(client.post(address, {**mine, "count": "2"}))
    lay = f"{address}layer/0/"
    assert tove.post(lay, {**hers, "slot": "skin"}).status_code == 302
    assert "Tove has changed this since" in told(client.post(lay, {**mine, "slot": "fur"})), "no id is shown"


@pytest.mark.parametrize(
    "odd", ["9999-12-31T23:59:59-23:59", "0001-01-01T00:00:00+23:59", "2026-11-28T10:00:00", "soon", "\0", ""]
)
def test_a_page_that_says_an_odd_moment_changes_what_it_asks(client, ball, odd):
    answer = client.post(f"{client.base}figures/{ball.pk}/part/ball/", {"drawn_at": odd, "diameter_mm": "41"})
    assert answer.status_code == 302
    assert sizes_of(ball)["diameter_mm"] == 41


def test_a_layer_that_another_has_changed_is_asked_about(client, tove, ball):
    page = f"figures/{ball.pk}/?part=ball&layer=0"
    mine, hers = (form(hand, page, "/layer/0/")["drawn_at"] for hand in (client, tove))
    address = f"{client.base}figures/{ball.pk}/part/ball/layer/0/"
    assert tove.post(address, {"drawn_at": hers, "firmness": "soft"}).status_code == 302
    answer = client.post(address, {"drawn_at": mine, "firmness": "airy"})
    assert "Tove has changed this to soft" in told(answer)
    assert client.post(address, {"drawn_at": mine, "slot": "skin"}).status_code == 302, "another field"
    late = form(client, page, "/layer/0/")["drawn_at"]
    assert client.post(address, {"drawn_at": late, "firmness": "airy"}).status_code == 302


# --- a press that comes twice ---------------------------------------------------------------------------------------


def test_a_double_press_begins_one_making_and_plans_one_project(client, owner, project):
    begin = form(client, f"plan/{project.pk}/", "/begin/")
    answers = [client.post(f"{client.base}bench/begin/{project.pk}/", begin) for _ in range(2)]
    assert Making.objects.count() == 1
    assert answers[0].headers["Location"] == answers[1].headers["Location"]
    planned = next(dict(f.fields) for f in forms_of(get(client, "plan/new/")) if "colourway" in f.fields)
    planned |= {"colourway": str(project.colourway_id), "count": "2"}
    for _ in range(2):
        assert client.post(f"{client.base}plan/new/", planned).status_code == 302
    assert Project.objects.count() == 2
    figure = next(dict(f.fields) for f in forms_of(get(client, "figures/new/")) if "story" in f.fields)
    for _ in range(2):
        client.post(f"{client.base}figures/new/", figure | {"name": "Eel"})
    assert Figure.objects.filter(name__startswith="Eel").count() == 1


def test_a_press_that_was_refused_may_come_again(client, owner, project):
    key = str(uuid.uuid4())
    given = {"key": key, "colourway": str(project.colourway_id), "count": "0", "due": str(project.due), "name": ""}
    assert client.post(f"{client.base}plan/new/", given).status_code == 422
    assert client.post(f"{client.base}plan/new/", given | {"count": "1"}).status_code == 302
    assert Project.objects.count() == 2


# --- one tablet -----------------------------------------------------------------------------------------------------


def test_a_page_of_the_other_hand_books_nothing(client, owner, project, moss):
    making = begin_making(owner, project.pk)
    layer = PieceLayer.objects.get()
    mine = form(client, f"bench/{making.pk}/", "/take/")
    tove = make.member(owner.studio)
    address = f"{client.base}bench/layer/{layer.pk}/take/"
    stale = {**mine, "hand": str(tove.pk), "amount": "3"}
    answer = client.post(address, stale, headers={"HX-Request": "true"})
    assert answer.status_code == 409
    assert "Mira’s hand by now" in answer.content.decode()
    answer = client.post(address, stale, follow=True)
    assert "hand by now" in words(answer.content.decode())
    assert not Movement.objects.filter(kind="pulled").exists()
    assert client.post(address, {**mine, "amount": "3"}).status_code == 302
    assert Movement.objects.get(kind="pulled").amount == -D(3)


@pytest.mark.parametrize("press", ["bench/layer/{id}/take/", "undo/", "stash/lot/{id}/take/", "restock/list/"])
def test_the_address_of_a_press_opened_as_a_page_leads_on(client, moss, press):
    answer = client.get(client.base + press.format(id=moss.pk), follow=True, headers={"Sec-Fetch-Mode": "navigate"})
    assert answer.status_code == 200, press
    assert re.search("<h1", answer.content.decode())
