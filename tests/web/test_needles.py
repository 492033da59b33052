"""Needles are counted out and back, a broken one leaves its box, and a tip that was not found is told to the end."""

import uuid

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import keep_hours
from tests.web.helpers import get, post, told, words
from tests.web.shared import shared
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.break_needle import break_needle
from wembit.web.bench.models import Making, NeedleBreak, Piece
from wembit.web.restock.queries import tide_of
from wembit.web.stash.models import Entry, Movement
from wembit.web.studio.models import Studio


@shared
def project_of_two(owner):
    return make.project(owner, count=2)


@shared
def making(owner, project_of_two):
    return begin_making(owner, project_of_two.pk)


@shared
def piece(making):
    return Piece.objects.get(making=making)


@shared
def box(owner):
    return make.notion_lot(owner, "triangle 38", "9", notion="needle")


def finish(client, making, **fields):
    return post(client, f"bench/{making.pk}/finish/", unweighed="nothing", **fields)


def test_none_went_out_and_nothing_is_asked(client, making):
    assert "needles are back" not in words(get(client, f"bench/{making.pk}/"))
    assert finish(client, making).status_code == 302


def test_what_went_out_comes_back_or_it_is_said_where_it_is(client, owner, making):
    post(client, f"bench/{making.pk}/needles/", out="3")
    assert "All 3 needles are back" in words(get(client, f"bench/{making.pk}/"))
    assert "3 went out" in told(finish(client, making))
    assert Making.objects.get().finished_at is None
    finish(client, making, missing="in the pad, left corner")
    assert Making.objects.get().missing == "in the pad, left corner"
    assert "did not come back: in the pad" in words(get(client, f"bench/{making.pk}/"))
    other = begin_making(owner, making.project_id)
    assert other.needles_out == 3, "as many as the last time"
    finish(client, other, needles_back="1", missing="nowhere")
    other.refresh_from_db()
    assert (other.finished_at is not None, other.missing) == (True, "")


@pytest.mark.parametrize("out", ["", "-1", "41", "two"])
def test_a_count_that_cannot_be_is_told(client, making, out):
    assert "between none and 40" in told(post(client, f"bench/{making.pk}/needles/", out=out))
    assert Making.objects.get().needles_out == 0


def test_the_count_is_taken_back_by_z(client, making):
    post(client, f"bench/{making.pk}/needles/", out="2")
    post(client, "undo/")
    assert Making.objects.get().needles_out == 0


def test_a_broken_needle_leaves_its_box_once_and_comes_back_by_z(client, making, piece, box):
    given = {"needle": str(box.item_id), "found": "", "key": str(uuid.uuid4())}
    for _ in range(2):
        post(client, f"bench/piece/{piece.pk}/broke/", **given)
    box.refresh_from_db()
    assert box.on_hand == 8
    assert Movement.objects.get(lot=box, kind="discarded").amount == -1
    assert "Its tip is still in it" in words(get(client, f"bench/{making.pk}/"))
    post(client, "undo/")
    box.refresh_from_db()
    assert box.on_hand == 9
    assert "tip is still in it" not in words(get(client, f"bench/{making.pk}/"))
    post(client, "again/")
    box.refresh_from_db()
    assert box.on_hand == 8
    assert "Its tip is still in it" in words(get(client, f"bench/{making.pk}/"))


def test_a_tip_that_was_not_found_is_told_until_it_is(client, making, piece):
    post(client, f"bench/piece/{piece.pk}/broke/", needle="", found="")
    broken = NeedleBreak.objects.get()
    assert broken.item is None
    finish(client, making)
    page = words(get(client, f"bench/{making.pk}/"))
    assert "is in the figure, which is not for a child" in page
    assert "a needle’s tip is in it" in words(get(client, "bench/"))
    post(client, f"bench/broke/{broken.pk}/found/")
    assert "not for a child" not in words(get(client, f"bench/{making.pk}/"))
    assert "tip is in it" not in words(get(client, "bench/"))


def test_an_empty_box_and_a_found_tip(client, making, piece, box):
    post(client, f"stash/lot/{box.pk}/weigh/", amount="0")
    post(client, f"bench/piece/{piece.pk}/broke/", needle=str(box.item_id), found="1")
    box.refresh_from_db()
    assert box.on_hand == 0
    assert "Its tip is found" in words(get(client, f"bench/{making.pk}/"))


def test_a_making_at_which_one_broke_was_begun(client, making, piece):
    post(client, f"bench/piece/{piece.pk}/broke/", needle="", found="1")
    answer = post(client, f"bench/{making.pk}/not-begun/", follow=True)
    assert "A needle broke at it" in answer.content.decode()
    assert Making.objects.exists()


def test_only_a_needle_breaks_and_only_in_hand(client, owner, making, piece):
    wool = make.lot(owner, "pine")
    assert "is no needle" in told(post(client, f"bench/piece/{piece.pk}/broke/", needle=str(wool.item_id)))
    viewer = signed_in(make.member(owner.studio, "viewer"))
    for address, fields in ((f"bench/piece/{piece.pk}/broke/", {}), (f"bench/{making.pk}/needles/", {"out": "1"})):
        assert post(viewer, address, **fields).status_code == 403
    finish(client, making)
    before = Entry.objects.count()
    post(client, f"bench/piece/{piece.pk}/broke/", needle="")
    assert post(client, f"bench/{making.pk}/needles/", out="2").status_code in (302, 422)
    assert Entry.objects.count() == before
    assert Making.objects.get().needles_out == 0


def worked(owner, making, minutes, breaks, box):
    """The making finished after so many minutes, while which so many needles broke."""
    for _ in range(breaks):
        break_needle(owner, making.pieces.first().pk, box.item_id, found=True, press=make.press())
    making.finished_at, making.took = clock.now(), {"ball": [minutes, minutes]}
    making.save()
    making.studio.pressed()


def test_needles_are_forecast_by_how_often_they_break_in_an_hour(client, owner, project_of_two, box):
    making = begin_making(owner, project_of_two.pk)

    def tide():
        return tide_of(Studio.objects.get(pk=owner.studio_id), box.item_id)

    worked(owner, making, 600, 4, box)
    assert tide().broken is None, "nobody has said the hours"
    keep_hours(client, "1")
    assert (tide().broken.breaks, tide().broken.hours_each) == (4, 2.5)
    assert tide().habit.weekly_g == pytest.approx(7 / 2.5)
    first = tide().outlook.runs_out
    keep_hours(client, "2")
    assert tide().habit.weekly_g == pytest.approx(14 / 2.5)
    assert tide().outlook.runs_out < first, "more hours break more"
    page = words(get(client, f"restock/item/{box.item_id}/"))
    assert "4 broke in 10 hours of work, one in 2.5: at your hours one in 1 day." in page
    worked(owner, begin_making(owner, project_of_two.pk), 1800, 0, box)
    assert tide().habit.weekly_g == pytest.approx(14 / 10), "whole hours without a break count, too"


def test_two_breaks_say_nothing_of_hours(client, owner, project_of_two, box):
    keep_hours(client, "1")
    worked(owner, begin_making(owner, project_of_two.pk), 600, 2, box)
    assert tide_of(Studio.objects.get(pk=owner.studio_id), box.item_id).broken is None
