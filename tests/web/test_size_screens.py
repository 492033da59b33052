"""How big a figure comes out, and backwards from the wool there is."""

import re
from decimal import Decimal

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.figures.drawing.layout import pictures
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.stash.actions.recount import recount


@shared
def ball(owner):
    """A ball of 30 mm in one wool, of which 50 g lie on the shelf."""
    lot = make.lot(owner, "moss", "50")
    figure = make.figure(owner, "Pebble", 30.0, lot)
    figure.lot = lot
    return figure


def plan_of(figure):
    version = newest_version(figure)
    return plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))


def drawn_of(figure):
    version = newest_version(figure)
    return pictures(version, parts_of(version), Palette.of(colourway_of(version)))["side"]


def diameter(figure) -> float:
    return newest_version(figure).parts.get().shape["diameter_mm"]


def offered(page: str) -> float:
    return float(re.search(r'name="scale" value="([\d.]+)"', page)[1])


def size(client, figure, **given) -> str:
    return get(client, f"figures/{figure.pk}/size/", data=given)


def test_a_finished_height_gives_the_scale(client, ball):
    page = size(client, ball, way="height", height="6 cm")
    assert offered(page) == pytest.approx(2, rel=0.01)
    assert "then 60 mm" in words(page)


def test_so_many_times(client, ball):
    assert offered(size(client, ball, way="times", times="1,5")) == 1.5


def test_so_much_wool_is_used_up(client, ball):
    item = ball.lot.item
    scale = offered(size(client, ball, way="wool", grams="35", item=str(item.pk)))
    post(client, f"figures/{ball.pk}/size/", scale=f"{scale:.6f}")
    assert diameter(ball) == pytest.approx(30 * scale, rel=1e-5)
    assert plan_of(ball).all.p50 == pytest.approx(35, rel=1e-3)


def test_as_big_as_the_shelf_allows_names_what_limits(client, owner, ball):
    page = size(client, ball, way="shelf")
    assert "moss sets the limit" in words(page)
    post(client, f"figures/{ball.pk}/size/", scale=f"{offered(page):.6f}")
    assert plan_of(ball).all.p50 == pytest.approx(50, rel=1e-3)
    sure = size(client, ball, way="shelf", sure="on")
    assert offered(sure) < 1
    post(client, f"figures/{ball.pk}/size/", scale=f"{offered(sure):.6f}")
    assert plan_of(ball).all.p90 == pytest.approx(50, rel=1e-3)


def test_promised_wool_counts_only_when_asked(client, owner, ball):
    project = make.project(owner, ball, count=1)
    assert project.needs.exists()
    less = offered(size(client, ball, way="shelf"))
    assert offered(size(client, ball, way="shelf", promised="on")) > less


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"way": "times", "times": "many"}, "number"),
        ({"way": "times", "times": "900"}, "between 0.05 and 20"),
        ({"way": "height", "height": "0.01"}, "at least"),
        ({"way": "height", "height": "9 m"}, "between"),
        ({"way": "wool", "grams": "x"}, "cannot be read"),
        ({"way": "wool", "grams": "4", "item": "none"}, "Choose a wool"),
    ],
)
def test_a_size_that_cannot_be_is_told_and_kept(client, owner, ball, given, said):
    if "item" not in given:
        given = {**given, "item": str(ball.lot.item_id)}
    answer = client.get(f"{client.base}figures/{ball.pk}/size/", given)
    assert said in told(answer)
    assert diameter(ball) == 30


def test_no_wool_no_size(client, owner, ball):
    empty = make.lot(owner, "thrift", "5")
    recount(owner, empty.pk, Decimal(0), press=make.press())
    post(client, f"figures/{ball.pk}/fibre/", slot=colour_slot(ball), item=str(empty.item_id))
    answer = client.get(f"{client.base}figures/{ball.pk}/size/", {"way": "shelf"})
    assert "No thrift is free" in told(answer)


def colour_slot(figure) -> str:
    return newest_version(figure).parts.get().layers.get().slot.name


def test_a_size_posted_wrong_changes_nothing(client, ball):
    for scale in ("", "x", "0", "1000"):
        assert post(client, f"figures/{ball.pk}/size/", scale=scale).status_code == 302
    assert diameter(ball) == 30


def test_how_big_by_its_length_or_by_a_part(client, owner):
    hare = figure_with(client, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"))
    fields = re.findall(r'<option value="([^"]*)"', get(client, f"figures/{hare.pk}/size/").split('name="of"')[1])
    assert fields[:5] == ["", "whole long", "body", "head", "ear"]
    assert offered(size(client, hare, way="height", of="ear", height="45")) == pytest.approx(1.5, abs=1e-6)
    once = size(client, hare, way="times", times="2")
    long = drawn_of(hare).long
    assert offered(size(client, hare, way="height", of="whole long", height=f"{2 * long:.2f}")) == pytest.approx(
        2, abs=0.01
    )
    assert "not fit" not in once
    answer = client.get(f"{client.base}figures/{hare.pk}/size/", {"way": "height", "of": "nobody", "height": "45"})
    assert "Choose the whole or a part" in told(answer)


def test_how_big_from_all_the_wool_there_is(client, owner, ball):
    scale = offered(size(client, ball, way="wool", grams="35", item="all"))
    post(client, f"figures/{ball.pk}/size/", scale=f"{scale:.6f}")
    assert plan_of(ball).all.p50 == pytest.approx(35, rel=1e-3)
    sure = offered(size(client, ball, way="wool", grams="35", item="all", sure="on"))
    assert sure < 1
    little = client.get(f"{client.base}figures/{ball.pk}/size/", {"way": "wool", "grams": "0.01", "item": "all"})
    assert "too little for even 0.05 times" in told(little)


def test_what_is_not_enough_at_that_size_is_marked(client, owner, ball):
    assert "short" not in size(client, ball, way="times", times="1")
    page = words(size(client, ball, way="times", times="4")).split("Now and then in numbers")[1]
    short = float(re.search(r"([\d.]+) g short", page)[1])
    there = float(ball.lot.on_hand)
    then = float(re.search(r"moss [\d.]+ g ([\d.]+) g", page)[1])
    assert short == pytest.approx(then - there, abs=0.11)
    recount(owner, ball.lot.pk, Decimal(5000), press=make.press())
    assert "short" not in size(client, ball, way="times", times="4")


def pull_of(page: str) -> dict[str, float]:
    slider = re.search(r'<input type="range"[^>]*>', page)[0]
    return {name: float(value) for name, value in re.findall(r'([\w-]+)="([\d.]+)"', slider)}


def test_a_figure_is_pulled_by_its_highest_point(client, owner, ball):
    page = size(client, ball)
    across, up = map(float, re.search(r'class="tip" d="M(\S+) (\S+)h0"', page).groups())
    assert up == pytest.approx(-30, abs=0.2), "the top of a ball of 30 mm"
    assert abs(across) < 6
    assert (pull_of(page)["step"], pull_of(page)["data-unit-mm"]) == (1, 1)
    taller = size(client, ball, way="height", height="60")
    assert float(re.search(r'class="tip" d="M\S+ (\S+)h0"', taller)[1]) == pytest.approx(-60, abs=0.2)
    assert pull_of(taller)["data-high-mm"] == pytest.approx(60, abs=0.1)


def test_the_slider_reaches_what_was_asked_for_and_speaks_the_unit_of_the_house(client, owner, ball):
    far = pull_of(size(client, ball, way="height", height="150"))
    assert far["min"] <= 30 <= far["max"]
    assert far["max"] == pytest.approx(150, abs=0.1), "further than three times its height"
    owner.studio.length_unit = "in"
    owner.studio.save()
    inches = pull_of(size(client, ball, way="height", height="3 in"))
    assert inches["data-unit-mm"] == 25.4
    assert inches["value"] == pytest.approx(3, abs=0.01)


def test_while_it_is_pulled_only_what_it_takes_is_sent(client, ball):
    asked = {"headers": {"HX-Request": "true", "HX-Target": "grown"}}
    page = get(client, f"figures/{ball.pk}/size/", data={"way": "height", "of": "", "height": "60"}, **asked)
    assert "<main" not in page
    assert "<form" not in page
    assert "60 mm high takes" in words(page)
    grams = float(re.search(r"takes ([\d.]+) g", words(page))[1])
    assert grams == pytest.approx(8 * plan_of(ball).all.p50, rel=0.02), "solid wool goes by the cube"


def test_wool_that_does_not_reach_is_said_beside_its_picture(client, ball):
    need = 27 * plan_of(ball).all.p50
    page = words(size(client, ball, way="times", times="3").split("Now and then in numbers")[0])
    assert float(re.search(r"([\d.]+) g short", page)[1]) == pytest.approx(need - 50, abs=0.06)
