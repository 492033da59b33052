"""The order of work as a maker reads and changes it."""

import re

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import newest_version


@shared
def hare(maker, owner) -> Figure:
    return figure_with(maker, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"), ("eye", "4"))


def ids(client, figure) -> list[str]:
    return re.findall(r'class="pick" href="\?step=([^"&]+)" hx-get', get(client, f"figures/{figure.pk}/order/"))


def step(client, figure, key, **given):
    return post(client, f"figures/{figure.pk}/order/step/", step=key, **given)


def test_the_steps_carry_wool_needles_minutes_a_check_and_a_caution(client, hare):
    page = get(client, f"figures/{hare.pk}/order/", data={"step": "make:ear"})
    text = words(page)
    assert "Lay out 2 × ear flat" in text
    assert "side by side" in text
    assert "How it is done" in text
    assert "Why now" in text
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


def test_an_open_question_is_a_fork_at_its_step_and_the_next_one_follows(client, owner, hare):
    page = get(client, f"figures/{hare.pk}/order/")
    cells = dict(re.findall(r'class="pick" href="\?step=([^"&]+)" hx-get(.*?)</li>', page, re.S))
    assert "What do you weigh?" in cells["gather"]
    assert cells["gather"].count("<svg") == 4, "the state, the fork and two ways"
    assert "When do the eyes go in?" in cells["eyes:eye"]
    assert 'name="way"' not in page, "nothing is asked before the order is seen"
    tray = get(client, f"figures/{hare.pk}/order/", data={"step": "gather"})
    assert re.findall(r'name="way"\s+value="(\w+)"', tray) == ["all", "bodies", "nothing"]
    answer = post(
        client, f"figures/{hare.pk}/order/way/", question="weigh", way="nothing", holds="studio", step="gather"
    )
    assert answer["Location"].endswith("?step=gather")
    assert "What do you felt on?" in get(client, f"figures/{hare.pk}/order/", data={"step": "gather"})


def test_one_figure_may_go_its_own_way(client, owner, hare):
    post(client, f"figures/{hare.pk}/order/way/", question="attach", way="glue", holds="figure")
    assert newest_version(hare).school == {"attach": "glue"}
    owner.studio.refresh_from_db()
    assert "attach" not in owner.studio.habits.get("school", {})
    assert "until it is dry" in words(get(client, f"figures/{hare.pk}/order/", data={"step": "join:head"}))


def test_one_part_may_go_its_own_way(client, hare):
    post(client, f"figures/{hare.pk}/order/way/", question="attach", way="stitch", holds="part:ear")
    page = words(get(client, f"figures/{hare.pk}/order/", data={"step": "join:ear"}))
    assert "Two rounds of small stitches" in page
    assert "Spread the loose end" in page
    head = words(get(client, f"figures/{hare.pk}/order/", data={"step": "join:head"}))
    assert head.count("Two rounds of small stitches") == 1, "only among the general ways, for the ear"
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


def cell(page, key) -> str:
    """The strip's cell of a step."""
    return page.split(f'class="pick" href="?step={key}"')[1].split("</li>")[0]


def test_each_state_shows_what_is_there_in_wool_and_the_part_in_hand_in_ink(client, hare):
    page = get(client, f"figures/{hare.pk}/order/")
    first, body, head, last = (cell(page, key) for key in ("gather", "make:body", "make:head", "away"))
    assert first.count('class="wool') == 0
    assert body.count('class="wool') == 1
    assert 'class="wool inked"' in body
    assert head.count('class="wool') == 2
    shapes = len(set(re.findall(r'id="s(\d+)"', page)))
    assert last.count('class="wool"') == shapes, "at the end nothing is missing"
    assert "inked" not in last


def test_a_part_is_drawn_in_its_core_until_it_is_covered(client, owner, hare):
    fibres(owner, hare)
    page = get(client, f"figures/{hare.pk}/order/")
    made = re.search(r'fill="([^"]+)"\s+class="wool inked"', cell(page, "make:body"))[1]
    covered = re.search(r'fill="([^"]+)"\s+class="wool inked"', cell(page, "cover:body"))[1]
    assert made != covered


def test_next_and_back_go_through_the_steps_and_the_reason_names_a_step_by_number(client, hare):
    order = ids(client, hare)
    page = get(client, f"figures/{hare.pk}/order/", data={"step": order[3]})
    assert f'href="?step={order[4]}"' in page.split('class="steps-on ')[1].split("</p>")[0]
    assert 'rel="prev"' in page
    assert 'rel="prev"' not in get(client, f"figures/{hare.pk}/order/", data={"step": order[0]})
    assert 'rel="next"' not in get(client, f"figures/{hare.pk}/order/", data={"step": order[-1]})
    place = order.index("make:body") + 1
    said = words(get(client, f"figures/{hare.pk}/order/", data={"step": "join:head"}))
    assert f"After {place}: something has to be there to join it to" in said


def test_the_sheet_to_print_has_every_step_with_needles_checks_and_a_box_and_each_caution_once_in_full(client, hare):
    page = get(client, f"figures/{hare.pk}/order/")
    paper = [each.split("</div>")[0] for each in page.split('class="on-paper"')[1:]]
    assert len(paper) == len(ids(client, hare))
    assert sum('class="box"' in each for each in paper) > len(paper) / 2
    whole = "".join(paper)
    assert whole.count("Needles are barbed and very sharp") == 1
    assert "As before:" in whole
    assert "Needles: one 38, then 40 to finish." in whole
    assert "Against template 1:" in whole
    assert page.count("Roll the wool as tight as it goes") <= 2, "among the general ways, and at a picked step"


def in_inches(owner):
    owner.studio.length_unit = "in"
    owner.studio.save()


def test_the_steps_say_lengths_in_the_units_of_the_house(client, owner, hare):
    in_inches(owner)
    text = words(get(client, f"figures/{hare.pk}/order/"))
    assert " mm" not in text.split("How it is done")[0]
    assert " in" in text


def fibres(owner, figure):
    for slot in newest_version(figure).slots.all():
        srgb = "#e9e2d2" if slot.name == "core" else "#6f7d43"
        choose_fibre(owner, figure.pk, slot.name, make.lot(owner, f"wool for {slot.name}", "200", srgb=srgb).item_id)


def test_the_bench_asks_for_wool_in_the_order_of_work_and_warns_as_the_step_does(client, owner, hare):
    fibres(owner, hare)
    making = begin_making(owner, make.project(owner, hare, count=1).pk)
    text = words(get(client, f"bench/{making.pk}/"))
    assert re.search(r"\d+ Roll body|\d+ Wind body", text)
    assert "very sharp" in text
    post(client, f"figures/{hare.pk}/order/way/", question="build", way="head", holds="studio")
    text = words(get(client, f"bench/{making.pk}/"))
    assert "Roll head" in text, "the bench follows the order at once"
    assert "Roll body" not in text


def test_who_begins_small_is_asked_for_three_quarters_first(client, owner, hare):
    fibres(owner, hare)
    making = begin_making(owner, make.project(owner, hare, count=1).pk)

    def asked() -> float:
        return float(re.search(r'name="amount"[^>]*value="([\d.]+)"', get(client, f"bench/{making.pk}/"))[1])

    whole = asked()
    post(client, f"figures/{hare.pk}/order/way/", question="amounts", way="small", holds="studio")
    assert asked() == pytest.approx(whole * 0.75, abs=0.01)
    post(client, f"figures/{hare.pk}/order/way/", question="amounts", way="generous", holds="studio")
    assert asked() == pytest.approx(whole)
