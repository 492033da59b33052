"""The drawing as a maker works with it: pushed parts, ways to look, what is pointed at."""

import re

import pytest

from tests.web import factories as make
from tests.web.helpers import figure_with, get, post, told, words
from tests.web.shared import shared
from wembit.web.figures.models import Figure, Part
from wembit.web.figures.queries import newest_version


@shared
def hare(maker, owner) -> Figure:
    return figure_with(maker, "Hare", ("body", "80"), ("head", "40"), ("ear", "30"), ("eye", "4"), ("leg", "30"))


def seat(figure, key) -> dict:
    return Part.objects.get(version=newest_version(figure), key=key).seat


def test_a_push_moves_a_part_over_the_skin(client, hare):
    before = seat(hare, "ear")
    assert post(client, f"figures/{hare.pk}/part/ear/nudge/", view="side", right_mm="-5").status_code == 302
    after = seat(hare, "ear")
    assert after["t"] < before["t"]
    assert after["on"] == "head"
    assert after["pitch"] == before["pitch"]


def test_a_push_deeper_hides_more_of_it(client, hare):
    def shown():
        return int(
            re.search(r'id="f-visible"[^>]*placeholder="(\d+)"', get(client, f"figures/{hare.pk}/?part=head"))[1]
        )

    before = shown()
    post(client, f"figures/{hare.pk}/part/head/nudge/", deeper_mm="8")
    assert seat(hare, "head")["sink"] > 8
    assert shown() < before


def test_a_turn_and_a_lift_of_the_first_part(client, hare):
    post(client, f"figures/{hare.pk}/part/body/nudge/", up_mm="4", pitch="10")
    assert seat(hare, "body")["centre_mm"] == pytest.approx(24 + 4)
    assert seat(hare, "body")["pitch"] == 10


@pytest.mark.parametrize("given", [{"right_mm": "x"}, {"up_mm": "99999"}, {"pitch": "400"}])
def test_a_push_that_cannot_be_is_told(client, hare, given):
    before = seat(hare, "ear")
    assert "at most" in told(post(client, f"figures/{hare.pk}/part/ear/nudge/", **given))
    assert seat(hare, "ear") == before
    assert post(client, f"figures/{hare.pk}/part/nobody/nudge/", right_mm="1").status_code == 404


def test_ways_to_look_are_kept(client, hare):
    assert "beside a hand; a square is 1 cm, the coin 23 mm across" in words(
        get(client, f"figures/{hare.pk}/?see=hand")
    )
    assert "cut open; a square" in words(get(client, f"figures/{hare.pk}/?see=cut"))
    assert "cut open; a square" in words(get(client, f"figures/{hare.pk}/?part=ear"))
    assert "front; a square" in words(get(client, f"figures/{hare.pk}/?see=whole"))


def test_eyes_have_their_line_from_the_front(client, hare):
    page = words(get(client, f"figures/{hare.pk}/?part=eye"))
    assert re.search(r"eye: [\d.]+ mm apart, level, \d+ % of the way down", page)


def test_does_it_stand(client, hare):
    page = words(get(client, f"figures/{hare.pk}/"))
    assert "Does it stand?" in page
    post(client, f"figures/{hare.pk}/part/leg/drop/")
    assert "Does it stand?" in words(get(client, f"figures/{hare.pk}/"))


def test_wools_that_would_not_be_told_apart_are_pointed_at(client, owner, hare):
    one, two = make.lot(owner, "fog", srgb="#b9bfc2"), make.lot(owner, "mist", srgb="#babfc2")
    post(client, f"figures/{hare.pk}/fibre/", slot="main", item=str(one.item_id))
    assert "told apart" not in get(client, f"figures/{hare.pk}/")
    post(client, f"figures/{hare.pk}/part/ear/layer/0/", slot="ears")
    post(client, f"figures/{hare.pk}/fibre/", slot="ears", item=str(two.item_id))
    page = get(client, f"figures/{hare.pk}/")
    assert "ear and head are of two wools that would not be told apart" in page
    assert 'class="pointer"' in page


def test_a_base_that_grins_through_is_pointed_at(client, owner, hare):
    dark, pale = make.lot(owner, "soot", srgb="#101010"), make.lot(owner, "chalk", srgb="#f4f1ea")
    post(client, f"figures/{hare.pk}/fibre/", slot="core", item=str(dark.item_id))
    post(client, f"figures/{hare.pk}/fibre/", slot="main", item=str(pale.item_id))
    assert "grins through unless it is laid" in get(client, f"figures/{hare.pk}/")


def test_two_shanks_that_would_meet_are_pointed_at(client, hare):
    post(client, f"figures/{hare.pk}/part/eye/", bead="4", shank_mm="18")
    assert "two shanks of 18 mm meet" in get(client, f"figures/{hare.pk}/")
    post(client, f"figures/{hare.pk}/part/eye/", shank_mm="5")
    assert "shanks" not in get(client, f"figures/{hare.pk}/")
