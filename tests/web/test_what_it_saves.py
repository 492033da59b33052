"""What a stand-in or a blend would save is told before it is used, and is what comes then."""

import uuid

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import text, words
from tests.web.test_stand_in_screens import accept, form_of, page_of, snails  # noqa: F401  a fixture
from wembit.web.plan.models import Need, StandIn
from wembit.web.stash.models import Entry, Lot, Promise
from wembit.web.studio.models import VIEWER, Studio
from wembit.web.what_if.trying import seen

ANSWERS = ("instead", "carded together")


@pytest.fixture
def priced(owner, snails):  # noqa: F811
    make.offer(owner, snails.needs.get().item, "25", "4.90", lead=60)
    return snails


def saves(client, project, answer):
    """What the page of a shortage asks for beside an answer, as htmx sends its form."""
    page, need = page_of(client, project)
    given = {name: value for name, value in form_of(page, answer).items() if name not in ("key", "hand")}
    address = f"{client.base}plan/what-if/answer/{project.pk}/{need.item_id}/"
    assert f'hx-get="{address}"' in page
    return client.get(address, given)


def now(owner):
    return seen(Studio.objects.get(pk=owner.studio_id))


def stored():
    models = (Need, Promise, StandIn, Entry, Lot)
    return [list(model.objects.order_by("pk").values_list()) for model in models]


@pytest.mark.parametrize("answer", ANSWERS)
def test_what_is_told_is_what_comes_and_looking_changes_nothing(client, owner, priced, answer):
    before, rows = now(owner), stored()
    assert before.orders
    assert before.cost > 8
    told = words(text(saves(client, priced, answer)))
    assert stored() == rows
    assert "moss for Market: enough again" in told
    page, _ = page_of(client, priced)
    assert accept(client, priced, page, answer).status_code == 302
    after = now(owner)
    assert not after.short
    assert after.cost < before.cost
    assert f"{before.cost - after.cost:.2f} EUR less" in told.replace("\xa0", " ")


def test_one_that_takes_what_another_project_waits_for_saves_nothing(client, owner, priced):
    page, _ = page_of(client, priced)
    given = {**form_of(page, "instead"), "count": "1"}
    address = f"{client.base}plan/what-if/answer/{priced.pk}/{priced.needs.get().item_id}/"
    partly = words(text(client.get(address, given)))
    assert "moss for Market" in partly
    assert "instead of" in partly, "less is short, not nothing"


def test_the_first_answer_tells_by_itself_the_others_when_asked(client, owner, priced):
    page, _ = page_of(client, priced)
    asks = page.split("plan/what-if/answer/")[1:]
    by_itself = ['hx-trigger="load, click"' in each.split(">")[0] for each in asks]
    assert by_itself == [True] + [False] * (len(asks) - 1)
    assert len(asks) > 1


def test_what_cannot_be_is_told_and_what_cannot_be_read_is_nothing(client, owner, priced):
    need = priced.needs.get()
    address = f"{client.base}plan/what-if/answer/{priced.pk}/{need.item_id}/"
    assert client.get(address).content == b""
    same = client.get(address, {"new": str(need.item_id), "count": "2", "seen": "1"})
    assert 'class="fault"' in text(same)
    assert client.get(address, {"new": str(uuid.uuid4()), "count": "2", "seen": "1"}).status_code == 404


def test_it_is_a_maker_s_and_no_other_studio_s(client, studio, owner, priced):
    need = priced.needs.get()
    address = f"plan/what-if/answer/{priced.pk}/{need.item_id}/?new={need.item_id}&count=1&seen=1"
    viewer = signed_in(make.member(studio, VIEWER))
    assert viewer.get(viewer.base + address).status_code == 403
    assert "what-if/answer" not in page_of(viewer, priced)[0]
    stranger = signed_in(make.studio_owner("Dune", "ana"))
    assert stranger.get(stranger.base + address).status_code == 404
