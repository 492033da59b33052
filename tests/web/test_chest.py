"""The chest of drawers: on the shelf, on the walk, on the list of what is to be pulled."""

import re
from decimal import Decimal as D
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.web import factories as make
from tests.web.helpers import get, post, words
from wembit.web.stash.chest.fronts import GAP, WIDTH, bands
from wembit.web.stash.models import FIBRE, Item, Lot


def front(page: str, name: str) -> str:
    return next(each for each in re.findall(r'<li class="front.*?</li>', page) if f"Drawer {name}<" in each)


@given(st.lists(st.tuples(st.booleans(), st.floats(0, 5000)), min_size=1, max_size=60))
def test_the_bags_of_a_drawer_fill_its_front_as_they_are_heavy(bags):
    lots = [
        Lot(item=Item(kind=FIBRE, form="tops"), on_hand=D(str(round(grams, 2))), weighed=weighed)
        for weighed, grams in bags
    ]
    found = bands(lots)
    assert len(found) == len(lots), "none is left out"
    for one, two in pairwise(found):
        assert one.width > 0 and 0 < two.x - one.x - one.width <= GAP + 0.011, "side by side"
    if any(not weighed or grams >= 0.01 for weighed, grams in bags):
        assert found[-1].x + found[-1].width == pytest.approx(WIDTH, abs=1)
    told = [float(lot.on_hand) for lot in lots if lot.weighed]
    both = sorted(zip(told, [band.width for band in found if band.is_weighed], strict=True))
    assert all(one[1] <= two[1] + 0.011 for one, two in pairwise(both)), "the heavier the broader"


def test_a_drawer_of_the_shelf_shows_its_wools_and_opens(client, owner):
    make.lot(owner, "moss", "50", drawer="A1", srgb="#6f7d43")
    make.lot(owner, "rust", "50", drawer="A1", srgb="#8a4b2a")
    make.lot(owner, "slate", "50", drawer="B2", srgb="#556677")
    page = get(client, "stash/?by=drawer")
    assert "#6f7d43" in front(page, "A1") and "#8a4b2a" in front(page, "A1") and "2 bags" in front(page, "A1")
    assert 'class="front' not in get(client, "stash/"), "by breed there are boards alone"
    assert "2 bags" in front(get(client, "stash/?by=drawer", headers={"HX-Request": "true"}), "A1"), "by the sieve, too"
    inside = get(client, "stash/" + re.search(r'href="[^"]*stash/([^"]+)"', front(page, "B2"))[1].replace("&amp;", "&"))
    assert "slate" in words(inside) and "moss" not in words(inside)
    assert "front lit" in front(inside, "B2")


def test_the_walk_ticks_a_drawer_when_all_of_it_was_weighed(client, owner):
    moss, rust = make.lot(owner, "moss", "50", drawer="A1"), make.lot(owner, "rust", "50", drawer="A1")
    assert "not weighed again yet" in front(get(client, "stash/walk/"), "A1")
    for lot in (moss, rust):
        assert "done" not in front(get(client, "stash/walk/"), "A1").split(">")[0]
        post(client, f"stash/walk/{lot.drawer_id}/?bag={lot.pk}", amount="50")
    assert "done" in front(get(client, "stash/walk/"), "A1").split(">")[0]


def test_the_pull_list_lights_the_drawers_that_are_needed(client, owner):
    moss = make.lot(owner, "moss", "50", drawer="A1")
    make.lot(owner, "rust", "50", drawer="B2")
    project = make.project(owner, make.figure(owner, "Hare", fibre=moss))
    page = get(client, f"plan/{project.pk}/pull-list/")
    taken = re.search(r"moss ([\d.]+) g", words(front(page, "A1")))[1]
    assert f"{taken} g" in words(page.split("<table")[1]), "as the list beneath says"
    assert "lit" in front(page, "A1").split(">")[0]
    assert "lit" not in front(page, "B2").split(">")[0]
