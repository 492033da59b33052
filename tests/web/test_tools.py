"""Which needle is in which holder, which pad is for this wool, and what broke where."""

import pytest

from tests.web import factories as make
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.core.craft.notions import pad_for
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.models import NeedleBreak, Piece, PieceLayer


def making_in(owner, srgb):
    wool = make.lot(owner, "a wool", "99", srgb=srgb)
    return begin_making(owner, make.project(owner, make.figure(owner, fibre=wool)).pk)


@shared
def box(owner):
    return make.notion_lot(owner, "triangle 38", "9", notion="needle")


def notion(client, item, **fields):
    return post(client, f"stash/notions/{item.pk}/", **fields)


@pytest.mark.parametrize(("light", "pad"), [(90, "pale"), (75, "pale"), (60, ""), (35, "dark"), (20, "dark")])
def test_pale_wool_has_a_pad_of_its_own(light, pad):
    assert pad_for(light) == pad


def test_the_pad_of_this_wool_is_named_where_the_step_is_done(client, owner):
    pale, dark = (make.notion_lot(owner, name, "1", notion="pad") for name in ("the white one", "the brown one"))
    making = making_in(owner, "#f4efe6")
    assert "On the white" not in words(get(client, f"bench/{making.pk}/"))
    notion(client, pale.item, size="", wools="pale")
    notion(client, dark.item, size="", wools="dark")
    assert "On the white one" in words(get(client, f"bench/{making.pk}/"))


def test_a_pad_for_nothing_that_is_known_is_told(client, owner):
    pad = make.notion_lot(owner, "slab", "1", notion="pad")
    answer = notion(client, pad.item, size="", wools="striped")
    assert answer.status_code == 422
    assert "Choose which wools it is for." in words(text(answer))


def test_a_needle_is_named_with_its_mark_and_its_holder(client, owner, box):
    notion(client, box.item, gauge="38", section="triangle", mark="a red dot", holder="the long one")
    making = making_in(owner, "#6f7d43")
    assert "triangle 38, a red dot, the long one" in words(get(client, f"bench/{making.pk}/"))


def test_breaks_are_counted_by_needle_and_by_what_was_worked(client, owner, box):
    making = making_in(owner, "#6f7d43")
    piece, layer = Piece.objects.get(), PieceLayer.objects.get()
    for _ in range(2):
        post(client, f"bench/piece/{piece.pk}/broke/", needle=str(box.item_id), found="1", layer=str(layer.pk))
    shown = words(get(client, f"bench/{making.pk}/"))
    assert "2 of triangle 38 broke before: inside 2." in shown
    post(client, "undo/")
    assert "1 of triangle 38 broke before" in words(get(client, f"bench/{making.pk}/"))
    post(client, "again/")
    assert NeedleBreak.objects.filter(role=layer.role).count() == 2, "done again it is counted where it was"
    assert "2 of triangle 38 broke before: inside 2" in words(get(client, f"bench/{making.pk}/"))
