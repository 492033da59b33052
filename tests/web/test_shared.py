"""What the tests of a file share is to each of them as if it had been made for it alone."""

import itertools

import pytest

from tests.web import factories as make
from tests.web.shared import put_in_order, shared
from wembit.web.stash.models import Lot


@shared
def moss(owner):
    return make.lot(owner, "moss", "50")


@shared
def sand(owner):
    return make.lot(owner, "sand", "20")


@pytest.mark.parametrize("grams", [1, 2])
@pytest.mark.sampled("both of them", 2)
def test_what_one_test_changes_is_not_there_for_the_next(moss, grams):
    assert moss.drawer.name == "A1"
    assert moss.on_hand == Lot.objects.get(pk=moss.pk).on_hand == 50
    moss.on_hand = grams
    moss.drawer.name = "elsewhere"
    moss.save()


def test_what_it_does_not_ask_for_is_not_there(owner, sand):
    assert {lot.item.name for lot in Lot.objects.of(owner.studio)} == {"sand"}


def test_all_that_it_asks_for_is_of_one_studio(owner, studio, moss, sand):
    assert set(Lot.objects.of(studio)) == {moss, sand}
    assert owner.studio == moss.studio


def test_without_anything_there_is_nothing(db):
    assert not Lot.objects.exists()


def test_those_that_ask_for_the_same_come_together(request):
    items = [item for item in request.session.items if item.path == request.path]
    put_in_order(items)
    asked = [tuple(name for name in ("moss", "sand") if name in item.fixturenames) for item in items]
    assert len(asked) >= 5
    assert len([one for one, two in itertools.pairwise(asked) if one != two]) == len(set(asked)) - 1
