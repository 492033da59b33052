"""A studio in which nothing stands yet: every place shows what will, and one thing to do first."""

import re

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post
from wembit.web.studio.models import VIEWER

BAG, FIGURE, PLAN = "Put the first bag on the shelf", "Begin a figure", "Plan something"
PLACES = {
    "": (BAG, FIGURE, PLAN),
    "figures/": (FIGURE, None, None),
    "plan/": (FIGURE, FIGURE, PLAN),
    "stash/": (BAG, None, None),
    "stash/walk/": (BAG, None, None),
    "colour/": (BAG, None, None),
    "bench/": (FIGURE, FIGURE, PLAN),
    "restock/": (FIGURE, FIGURE, PLAN),
}


def first_things(page: str) -> list[str]:
    return re.findall(r'<a class="btn ink" href="[^"]+">([^<]+)</a>', page)


@pytest.mark.parametrize("place", PLACES)
def test_a_place_with_nothing_in_it_shows_its_outline_and_one_thing(client, owner, place):
    page = get(client, place)
    assert 'class="ghost' in page
    assert first_things(page) == [PLACES[place][0]]


@pytest.mark.parametrize("place", ["", "plan/", "bench/", "restock/"])
def test_the_one_thing_goes_on_with_the_studio(client, owner, place):
    make.lot(owner, "moss", "50")
    assert first_things(get(client, place))[:1] == [PLACES[place][1]]
    post(client, "figures/new/", name="Otter")
    assert first_things(get(client, place))[:1] == [PLACES[place][2]]


def test_the_first_thing_of_a_map_without_colours_is_a_colour(client, owner):
    make.lot(owner, "moss", "50", srgb="")
    assert first_things(get(client, "colour/"))[:1] == ["Tell a bag its colour"]


def test_a_map_with_one_colour_is_a_map(client, owner):
    make.lot(owner, "rust", "50", srgb="#8a4b2a")
    assert 'class="ghost' not in get(client, "colour/")


def test_a_viewer_of_an_empty_studio_has_nothing_to_press(owner):
    viewer = make.member(owner.studio, VIEWER, "ada")
    client = signed_in(viewer)
    for place in ("", "plan/", "stash/walk/"):
        assert 'class="ghost' in get(client, place)
        assert not first_things(get(client, place))
