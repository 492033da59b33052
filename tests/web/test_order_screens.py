"""The order of work as a maker reads and changes it."""

import re

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told, words
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import newest_version


@pytest.fixture
def hare(client, owner) -> Figure:
    return figure_with(client, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"), ("eye", "4"))


def ids(client, figure) -> list[str]:
    return re.findall(r'href="\?step=([^"&]+)" hx-get', get(client, f"figures/{figure.pk}/order/"))


def step(client, figure, key, **given):
    return post(client, f"figures/{figure.pk}/order/step/", step=key, **given)


def test_the_steps_carry_wool_needles_minutes_a_check_and_a_caution(client, hare):
    page = get(client, f"figures/{hare.pk}/order/", data={"step": "make:ear"})
    text = words(page)
    assert "Make 2 × ear" in text
    assert "side by side" in text
    assert "Needles" in text
    assert "Before you go on" in text
    assert "very sharp" in text
    assert "suppliers" in text.replace("’", "")
    assert "min" in text
    assert re.search(r"Take.{0,80}? g", text)
    assert "small parts" in words(get(client, f"figures/{hare.pk}/order/", data={"step": "eyes:eye"}))


def test_a_way_is_asked_once_and_holds_for_the_whole_studio(client, owner, hare):
    page = get(client, f"figures/{hare.pk}/order/")
    assert page.count("not said yet") > 4
    assert "How many needles for the bulk?" in page
    answer = post(client, f"figures/{hare.pk}/order/way/", question="eyes", way="early")
    assert answer.status_code == 302
    owner.studio.refresh_from_db()
    assert owner.studio.habits["school"]["eyes"] == "early"
    assert ids(client, hare).index("eyes:eye") < ids(client, hare).index("finish") - 1
    assert "Choose one of the ways" in told(post(client, f"figures/{hare.pk}/order/way/", question="eyes", way="never"))


def test_one_figure_may_go_its_own_way(client, owner, hare):
    post(client, f"figures/{hare.pk}/order/way/", question="attach", way="glue", holds="figure")
    assert newest_version(hare).school == {"attach": "glue"}
    owner.studio.refresh_from_db()
    assert "attach" not in owner.studio.habits.get("school", {})
    assert "until it is dry" in words(get(client, f"figures/{hare.pk}/order/", data={"step": "join:head"}))


def test_one_part_may_go_its_own_way(client, hare):
    post(client, f"figures/{hare.pk}/order/way/", question="attach", way="stitch", holds="part:ear")
    page = words(get(client, f"figures/{hare.pk}/order/", data={"step": "join:ear"}))
    assert "Stitch it round twice" in page
    assert "Spread the loose end" in page
    head = words(get(client, f"figures/{hare.pk}/order/", data={"step": "join:head"}))
    assert head.count("Stitch it round twice") == 1, "only in the ear's line"
    answer = post(client, f"figures/{hare.pk}/order/way/", question="attach", way="glue", holds="part:nobody")
    assert answer.status_code == 404


def test_a_step_is_said_otherwise_moved_left_out_and_taken_in(client, hare):
    step(client, hare, "make:head", title="Roll the head", words="As round as an egg.", minutes="25")
    assert "As round as an egg." in get(client, f"figures/{hare.pk}/order/")
    before = ids(client, hare)
    at = before.index("make:head")
    step(client, hare, "make:head", do="earlier")
    assert ids(client, hare).index("make:head") == at - 1
    step(client, hare, "make:head", do="later")
    assert ids(client, hare) == before
    step(client, hare, "finish", do="off")
    assert "finish" not in ids(client, hare)
    assert "Left out: 1" in get(client, f"figures/{hare.pk}/order/")
    step(client, hare, "finish", do="on")
    assert ids(client, hare) == before


def test_a_step_of_ones_own(client, hare):
    step(client, hare, "make:body", do="add", new_title="Tea")
    found = ids(client, hare)
    own = found[found.index("make:body") + 1]
    assert own.startswith("own:")
    assert "Tea" in get(client, f"figures/{hare.pk}/order/")
    step(client, hare, own, title="Green tea", words="", minutes="10")
    assert "Green tea" in get(client, f"figures/{hare.pk}/order/")
    step(client, hare, own, do="off")
    assert own not in ids(client, hare)
    assert "Left out" not in get(client, f"figures/{hare.pk}/order/")


def test_a_new_part_finds_its_place_in_a_changed_order(client, hare):
    step(client, hare, "make:head", do="earlier")
    post(client, f"figures/{hare.pk}/part/", kind="tail", length="20")
    found = ids(client, hare)
    assert "make:tail" in found
    assert found.index("make:tail") < found.index("join:tail") < found.index("finish")


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"title": "", "minutes": "5"}, "Say what is done"),
        ({"title": "x", "minutes": "long"}, "number"),
        ({"title": "x", "minutes": "99999"}, "between 0 and 6000"),
        ({"do": "add", "new_title": " "}, "Say what is done"),
    ],
)
def test_what_cannot_be_is_told(client, hare, given, said):
    assert said in told(step(client, hare, "make:head", **given))
    assert newest_version(hare).order in ({}, {"first": [], "said": {}, "off": [], "own": {}})


def test_the_order_is_kept_with_the_version(client, owner):
    figure = make.figure(owner)
    step(client, figure, "make:ball", title="Roll it", words="", minutes="9")
    begin_making(owner, make.project(owner, figure).pk)
    first = newest_version(figure)
    step(client, figure, "make:ball", title="Roll it tight", words="", minutes="9")
    second = newest_version(figure)
    assert (first.number, second.number) == (1, 2)
    assert first.order["said"]["make:ball"]["title"] == "Roll it"
    assert second.order["said"]["make:ball"]["title"] == "Roll it tight"
