"""Wool put aside for a later step: kept for that part, shown as such, and it says whether it reaches."""

from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import PieceLayer, Take
from wembit.web.bench.queries import making_of
from wembit.web.figures.models import Part
from wembit.web.plan.models import Need
from wembit.web.stash.models import Lot, Promise
from wembit.web.studio.models import VIEWER


@shared
def oat(owner):
    return make.lot(owner, "oat", "30")


@shared
def making(owner, oat):
    """Two balls of 30 mm, one after the other."""
    ball = make.figure(owner, fibre=oat, length=30)
    Part.objects.filter(version__figure=ball).update(count=2)
    return begin_making(owner, make.project(owner, ball).pk)


@shared
def first(making):
    return PieceLayer.objects.order_by("piece__position")[0]


@shared
def second(making):
    return PieceLayer.objects.order_by("piece__position")[1]


def take(client, layer, grams):
    return post(client, f"bench/layer/{layer.pk}/take/", lot=str(layer.item.lots.get().pk), amount=str(grams))


def aside(client, layer, later, grams, **more):
    given = {"lot": str(layer.item.lots.get().pk), "later": str(later.pk), "aside": str(grams), **more}
    return post(client, f"bench/layer/{layer.pk}/aside/", **given)


def page(client, making, layer):
    return words(get(client, f"bench/{making.pk}/?layer={layer.pk}"))


def line(studio, making, layer):
    return next(
        each for piece in making_of(studio, making.pk).pieces for each in piece.layers if each.layer.pk == layer.pk
    )


def test_of_what_was_taken_some_is_kept_for_the_second(client, studio, making, first, second, oat):
    take(client, first, 3)
    aside(client, first, second, "1.2")
    oat.refresh_from_db()
    assert oat.on_hand == 27, "it was out of the bag already"
    assert line(studio, making, first).taken == D("1.8")
    kept = line(studio, making, second)
    assert (kept.taken, kept.aside, kept.done) == (D("1.2"), D("1.2"), False)
    shown = page(client, making, second)
    assert "1.2 g lie aside for it" in shown
    assert "It may not reach." in shown or "It will not reach." in shown
    assert "ball 2 1.2 g aside" in page(client, making, first)
    assert making_of(studio, making.pk).next.layer.pk == second.pk, "it is still to be worked"


def test_from_the_bag_where_nothing_was_taken(client, studio, making, first, second, oat):
    assert "From the bag." in page(client, making, first)
    aside(client, first, second, "9")
    oat.refresh_from_db()
    assert oat.on_hand == 21
    assert line(studio, making, first).taken == 0
    assert "It reaches, nine times in ten." in page(client, making, second)


def test_what_is_planned_counts_it_as_taken(client, making, first, second, oat):
    before = sum(Promise.objects.filter(lot=oat).values_list("amount", flat=True))
    aside(client, first, second, "1")
    after = sum(Promise.objects.filter(lot=oat).values_list("amount", flat=True))
    assert before - after == 1
    assert Need.objects.get().p50 == pytest.approx(before, abs=D("0.01"))


def test_used_it_is_taken_and_z_lays_it_aside_again(client, studio, making, first, second):
    aside(client, first, second, "1.2")
    post(client, f"bench/layer/{second.pk}/use/")
    used = line(studio, making, second)
    assert (used.taken, used.aside, used.done) == (D("1.2"), 0, True)
    assert "lie aside" not in page(client, making, second)
    post(client, "undo/")
    assert line(studio, making, second).aside == D("1.2")
    post(client, "undo/")
    assert line(studio, making, second).taken == 0
    post(client, "again/")
    assert line(studio, making, second).aside == D("1.2"), "done again it lies aside again"


def test_taking_more_for_it_uses_it(client, studio, making, first, second):
    aside(client, first, second, "1.2")
    take(client, second, "0.5")
    kept = line(studio, making, second)
    assert kept.done
    assert kept.taken == D("1.7")


def test_a_try_that_is_given_up_leaves_what_lies_aside(client, studio, making, first, second):
    aside(client, first, second, "1.2")
    take(client, second, "0.5")
    post(client, f"bench/piece/{second.piece_id}/again/", where="waste", reason="big")
    assert line(studio, making, second).taken == D("1.2")


@pytest.mark.parametrize(
    ("grams", "said"), [("0", "more than nothing"), ("4", "Only 3 g were taken"), ("x", "Write"), ("", "")]
)
def test_what_cannot_be_is_told_and_stays(client, making, first, second, grams, said):
    take(client, first, 3)
    answer = aside(client, first, second, grams)
    assert answer.status_code == 422
    assert said in words(text(answer))
    assert Take.objects.filter(aside=True).count() == 0


def test_only_for_the_same_wool_of_the_same_making(client, owner, making, first):
    other = begin_making(owner, make.project(owner, make.figure(owner, "Other", fibre=make.lot(owner, "sea"))).pk)
    stranger = PieceLayer.objects.get(piece__making=other)
    answer = aside(client, first, stranger, "1")
    assert answer.status_code == 422
    assert "Choose a later step that takes the same wool." in words(text(answer))
    assert Lot.objects.get(item=first.item).on_hand == 30


def test_pressed_twice_it_is_put_aside_once(client, studio, making, first, second):
    for _ in range(2):
        aside(client, first, second, "1.2", key="one-press-0123456789")
    assert line(studio, making, second).taken == D("1.2")


def test_what_is_promised_to_others_is_not_put_aside(client, owner, making, first, second, oat):
    other = make.figure(owner, "Large", fibre=oat, length=68)
    make.project(owner, other, days=3)
    answer = aside(client, first, second, "20")
    assert answer.status_code == 422
    assert "promised to" in words(text(answer))


def test_a_viewer_does_not(client, studio, making, first, second):
    viewer = signed_in(make.member(studio, VIEWER))
    assert aside(viewer, first, second, "1").status_code == 403
