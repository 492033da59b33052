"""What a worker keeps is bounded, isolated, and ends with the press that changes it."""

import pickle
import sys
import threading

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post
from wembit.web.caches import BoundedCache, forget_studios, nothing_kept, until_pressed
from wembit.web.colour.queries import wools
from wembit.web.stash.models import Lot
from wembit.web.studio.models import Studio


def test_the_sum_of_what_is_kept_stays_within_its_bytes():
    cache = BoundedCache(10_000)
    for number in range(200):
        cache.get_or_make(number, 0, lambda: "x" * 900)
        assert cache.bytes <= 10_000
    assert 8 <= len(cache) <= 11
    assert cache.get_or_make(199, 0, lambda: "anew") == "x" * 900, "the newest is there"
    assert cache.get_or_make(0, 0, lambda: "anew") == "anew", "the oldest has gone"


def test_what_is_too_large_is_given_and_not_kept():
    cache = BoundedCache(1_000)
    assert cache.get_or_make("a", 0, lambda: "x" * 5_000)
    assert len(cache) == 0
    assert cache.bytes == 0


def test_another_stamp_takes_the_place_of_the_old_one():
    cache = BoundedCache(100_000)
    for stamp in range(50):
        assert cache.get_or_make("today", stamp, lambda stamp=stamp: [stamp] * 100) == [stamp] * 100
    assert len(cache) == 1
    assert cache.bytes < 1_000


def test_nobody_gets_the_object_that_another_one_changes():
    cache = BoundedCache(100_000)
    first = cache.get_or_make("rows", 0, lambda: [1, 2])
    first.append(3)
    second = cache.get_or_make("rows", 0, lambda: "anew")
    assert second == [1, 2]
    assert second is not cache.get_or_make("rows", 0, lambda: "anew")


def test_threads_keep_the_count_of_bytes_true():
    cache = BoundedCache(20_000)

    def fill(start):
        for number in range(300):
            cache.get_or_make((start, number % 40), number, lambda number=number: "y" * (number % 700))

    threads = [threading.Thread(target=fill, args=(each,)) for each in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert cache.bytes == sum(sys.getsizeof(row[2]) for row in cache._rows.values()) <= 20_000


def test_what_was_looked_up_once_for_a_request_is_not_kept_with_the_studio(client, owner):
    """Else every row that names its studio carries all that this request has read, and gives it to later ones."""
    owner.studio.once("wool", lambda: ["moss"] * 9_000)
    kept = pickle.dumps(owner.studio)
    assert len(kept) < 9_000
    assert pickle.loads(kept).once("wool", lambda: "peat") == "peat"
    assert owner.studio.once("wool", lambda: "peat") == ["moss"] * 9_000


def test_twenty_presses_keep_one_page_of_today(client, owner):
    lot = make.lot(owner, grams="200")
    for _ in range(20):
        post(client, f"stash/lot/{lot.pk}/take/", amount="1")
        get(client, "")
    kept = [key for key in until_pressed._rows if key[0] == owner.studio_id]
    assert len(kept) == len({what for _, what in kept}) < 12


def stamp(studio) -> int:
    return Studio.objects.get(pk=studio.pk).stamp


def test_what_is_only_tried_is_not_kept_for_a_press_that_comes_to_the_same_stamp(owner, studio):
    moss = make.lot(owner, "moss", "50", srgb="#6f7d43")
    with nothing_kept():
        Lot.objects.filter(pk=moss.pk).update(on_hand=1)
        assert [wool.free for wool in wools(studio).rows] == [1]
    Lot.objects.filter(pk=moss.pk).update(on_hand=50)
    shelf = wools(studio)
    assert [wool.free for wool in shelf.rows] == [50]
    assert wools(studio) is shelf
    studio.stamp += 1
    assert wools(studio) is not shelf
    forget_studios()
    assert wools(studio) is not shelf


@pytest.mark.parametrize("given", [{"amount": "much"}, {"amount": "99999"}, {}])
def test_a_refused_press_keeps_what_is_kept(client, owner, studio, given):
    lot, before = make.lot(owner), stamp(studio)
    assert post(client, f"stash/lot/{lot.pk}/take/", **given).status_code == 422
    viewer = signed_in(make.member(studio, "viewer", "vera"))
    assert post(viewer, f"stash/lot/{lot.pk}/take/", amount="1").status_code == 403
    assert client.post(client.base + "stash/").status_code == 405
    assert stamp(studio) == before
    assert post(client, f"stash/lot/{lot.pk}/take/", amount="1").status_code == 302
    assert stamp(studio) == before + 1


def test_weighing_on_the_board_keeps_what_is_kept(client, studio):
    figure = figure_with(client, "Hare", ("body", "60"))
    board = client.post(client.base + f"figures/{figure.pk}/draw/", {"kind": "slab"}).url
    before = stamp(studio)
    points = {"x0": "0", "y0": "0", "x1": "30", "y1": "0", "x2": "30", "y2": "20"}
    assert client.post(board, {**points, "weigh": "1"}).status_code == 200
    assert stamp(studio) == before
    assert client.post(board, points).status_code == 302
    assert stamp(studio) == before + 1
