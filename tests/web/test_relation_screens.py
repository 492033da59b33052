"""Parts that follow other parts, and a piece of wool divided among them."""

import re

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.figures.models import Figure, Part
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure


@shared
def hare(maker, owner) -> Figure:
    """A body of 100 mm, four legs of 40 mm, a tail."""
    figure = figure_with(maker, "Hare", ("body", "100"), ("leg", "40"), ("tail", "20"))
    post(maker, f"figures/{figure.pk}/part/leg/", count="4")
    return figure


def shape(figure, key) -> dict:
    return Part.objects.get(version=newest_version(figure), key=key).shape


def grams(figure, key) -> float:
    version = newest_version(figure)
    plan = plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))
    part = next(other for other in plan.parts if other.part.key == key)
    return sum(layer.grams.middle for layer in part.layers) / part.part.count


def follow(client, figure, key, **given):
    return post(client, f"figures/{figure.pk}/part/{key}/follow/", **given)


def test_legs_half_the_body_stay_half_the_body(client, hare):
    given = {"size": "length_mm", "share": "half", "of": "body/length_mm", "whole": "on"}
    assert follow(client, hare, "leg", **given).status_code == 302
    assert shape(hare, "leg")["length_mm"] == pytest.approx(50)
    post(client, f"figures/{hare.pk}/part/body/", length_mm="15 cm")
    assert shape(hare, "leg") == pytest.approx({"kind": "capsule", "length_mm": 75, "diameter_mm": 22.5})
    assert "long: 1/2 × body, long." in words(get(client, f"figures/{hare.pk}/?part=leg"))


def test_a_tail_of_a_third_of_a_legs_wool_follows_size_and_firmness(client, hare):
    follow(client, hare, "tail", size="wool", share="a third", of="leg/wool")
    assert grams(hare, "tail") == pytest.approx(grams(hare, "leg") / 3, rel=1e-4)
    for change in ({"firmness": "very_firm"}, {"length_mm": "55"}):
        post(client, f"figures/{hare.pk}/part/leg/", **change)
        assert grams(hare, "tail") == pytest.approx(grams(hare, "leg") / 3, rel=1e-4)
    post(client, f"figures/{hare.pk}/size/", scale="1.7")
    assert grams(hare, "tail") == pytest.approx(grams(hare, "leg") / 3, rel=1e-4)


def test_a_gap_stays_as_wide_when_the_figure_grows(client, hare):
    follow(client, hare, "tail", size="length_mm", share="1", of="leg/length_mm", gap="2 mm")
    assert shape(hare, "tail")["length_mm"] == pytest.approx(42)
    post(client, f"figures/{hare.pk}/size/", scale="2")
    assert shape(hare, "tail")["length_mm"] == pytest.approx(82)
    follow(client, hare, "tail", size="length_mm", share="1", of="leg/length_mm", gap="-2 mm")
    assert shape(hare, "tail")["length_mm"] == pytest.approx(78)


def test_a_ring_of_parts_is_refused_with_their_names(client, hare):
    follow(client, hare, "leg", size="length_mm", share="half", of="body/length_mm")
    answer = follow(client, hare, "body", size="length_mm", share="2", of="leg/length_mm")
    assert "in a ring" in told(answer)
    assert "body, leg, body" in told(answer)
    assert not Part.objects.get(version=newest_version(hare), key="body").relations


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"size": "length_mm", "share": "much", "of": "body/length_mm"}, "no share"),
        ({"size": "length_mm", "share": "half", "of": "nobody/length_mm"}, "Choose a part"),
        ({"size": "length_mm", "share": "half", "of": "body/wool"}, "Choose a part"),
        ({"size": "tube_diameter_mm", "share": "half", "of": "body/length_mm"}, "Choose what follows"),
        ({"size": "length_mm", "share": "0.0001", "of": "body/length_mm"}, "below 0.1 mm"),
        ({"size": "length_mm", "share": "half", "of": "body/length_mm", "gap": "wide"}, "cannot be read"),
    ],
)
def test_what_cannot_be_followed_is_told(client, hare, given, said):
    before = shape(hare, "leg")
    assert said in told(follow(client, hare, "leg", **given))
    assert shape(hare, "leg") == before


def test_let_go_it_keeps_its_size(client, hare):
    follow(client, hare, "leg", size="length_mm", share="half", of="body/length_mm")
    post(client, f"figures/{hare.pk}/part/leg/let-go/", size="length_mm")
    post(client, f"figures/{hare.pk}/part/body/", length_mm="150")
    assert shape(hare, "leg")["length_mm"] == pytest.approx(50)


def test_what_followed_a_part_that_is_taken_off_keeps_its_size(client, hare):
    follow(client, hare, "tail", size="length_mm", share="half", of="leg/length_mm")
    assert post(client, f"figures/{hare.pk}/part/leg/drop/").status_code == 302
    assert shape(hare, "tail")["length_mm"] == pytest.approx(20)
    assert not Part.objects.get(version=newest_version(hare), key="tail").relations


def test_ten_grams_are_divided_by_shares(client, owner, hare):
    tops = make.lot(owner, "fawn", form="tops")
    post(client, f"figures/{hare.pk}/fibre/", slot="main", item=str(tops.item_id))
    given = {"grams": "10", "item": str(tops.item_id), "share_body": "3/4", "share_leg": "rest"}
    page = words(get(client, f"figures/{hare.pk}/divide/", data=given))
    assert "body 7.5 g" in page and "4 × leg 2.5 g, 0.62 g each; 28.4 mm long each" in page, page
    answer = post(client, f"figures/{hare.pk}/divide/", **given)
    assert answer.status_code == 302
    assert grams(hare, "body") == pytest.approx(7.5, rel=1e-4)
    assert grams(hare, "leg") == pytest.approx(0.625, rel=1e-4)


def test_dividing_begins_with_the_parts_that_are_of_that_wool_alone(client, owner, hare):
    """Their grams and shares: given, they change nothing. A body over a core of another wool has no share."""
    tops, core = make.lot(owner, "fawn", form="tops"), make.lot(owner, "inside", form="core")
    post(client, f"figures/{hare.pk}/fibre/", slot="main", item=str(tops.item_id))
    post(client, f"figures/{hare.pk}/fibre/", slot="core", item=str(core.item_id))
    page = get(client, f"figures/{hare.pk}/divide/", data={"item": str(tops.item_id)})
    filled = dict(re.findall(r'<input[^>]*name="(\w+)"[^>]*value="([^"]*)"', page))
    assert filled["share_body"] == ""
    assert filled["share_leg"] == "rest" and filled["share_tail"].endswith(" %")
    before = [grams(hare, key) for key in ("body", "leg", "tail")]
    assert float(filled["grams"]) == pytest.approx(4 * before[1] + before[2], abs=0.006)
    given = {name: filled[name] for name in ("grams", "share_leg", "share_tail")}
    assert post(client, f"figures/{hare.pk}/divide/", item=str(tops.item_id), **given).status_code == 302
    assert [grams(hare, key) for key in ("body", "leg", "tail")] == pytest.approx(before, abs=0.006), "to the hundredth"


def test_a_figure_without_wool_is_divided_from_nothing(client, hare):
    page = get(client, f"figures/{hare.pk}/divide/")
    assert "Say how much wool there is" in words(page)
    assert 'aria-invalid="true"' not in page


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"grams": "x", "share_body": "half"}, "cannot be read"),
        ({"grams": "10"}, "at least one part"),
        ({"grams": "10", "share_body": "3/4", "share_leg": "half"}, "come to 1.25"),
        ({"grams": "10", "share_body": "lots"}, "no share"),
    ],
)
def test_shares_that_cannot_be_are_told_and_kept(client, hare, given, said):
    answer = client.get(f"{client.base}figures/{hare.pk}/divide/", given)
    assert said in told(answer)
    assert f'value="{given["grams"]}"' in answer.content.decode()


def test_too_little_wool_for_a_wired_part_is_told(client, hare):
    post(client, f"figures/{hare.pk}/part/leg/", shape="wrap")
    answer = post(client, f"figures/{hare.pk}/divide/", grams="0.01", share_leg="1/100")
    assert answer.status_code == 422
    assert "so much wool" in told(answer)


def test_a_size_that_follows_says_so_and_is_let_go_in_one_press(client, hare):
    follow(client, hare, "tail", size="length_mm", share="1", of="leg/length_mm", gap="2 mm")
    page = get(client, f"figures/{hare.pk}/?part=tail")
    field = re.search(r'<input id="f-length_mm"[^>]*>', page)[0]
    assert "readonly" in field
    assert "name=" not in field, "what cannot be typed is not sent"
    assert 'form="let-go-length_mm"' in page
    post(client, f"figures/{hare.pk}/part/tail/", length_mm="9")
    assert shape(hare, "tail")["length_mm"] == pytest.approx(42)
    post(client, f"figures/{hare.pk}/part/tail/let-go/", size="length_mm")
    page = get(client, f"figures/{hare.pk}/?part=tail")
    assert "readonly" not in re.search(r'<input id="f-length_mm"[^>]*>', page)[0]
    post(client, f"figures/{hare.pk}/part/tail/", length_mm="9")
    assert shape(hare, "tail")["length_mm"] == 9
