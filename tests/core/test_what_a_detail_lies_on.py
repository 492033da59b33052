"""What a detail lies on when nothing is said, and along which line a border runs."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.grams.details import border_line, cover_ground, ground

HARE = {
    "body": [("core", "core"), ("cover", "grey"), ("cover", "belly"), ("detail", "saddle")],
    "tail": [("core", "white"), ("detail", "tip")],
    "eyes": [("detail", "gleam")],
    "whisker": [],
}
HOSTS = {"body": None, "tail": "body", "eyes": "tail", "whisker": "eyes"}


def test_a_detail_lies_on_the_cover_else_on_the_core_else_on_what_the_part_sits_on():
    found = {part: ground(part, HARE, HOSTS) for part in HARE}
    assert found == {"body": "grey", "tail": "white", "eyes": "white", "whisker": "white"}


def test_without_wool_there_is_no_ground():
    assert ground("eyes", {"eyes": [("detail", "gleam")]}, {"eyes": None}) is None
    assert ground("eyes", {"eyes": []}, {"eyes": "somebody"}) is None


@given(st.permutations(["a", "b", "c"]))
def test_a_ring_of_bare_parts_comes_to_an_end(names):
    hosts = dict(zip(names, [*names[1:], names[0]], strict=True))
    assert ground("a", {name: [] for name in names}, hosts) is None


@given(st.floats(0.1, 0.9), st.floats(0.1, 0.9), st.floats(0.1, 0.9))
def test_a_border_runs_along_the_first_cover_or_the_further_one_that_is_named(first, second, third):
    covers = [("back", first), ("belly", second), ("throat", third)]
    assert border_line(covers) == first
    assert border_line(covers, "back") == first, "the first cover is laid from the top"
    assert border_line(covers, "belly") == 1 - second, "a further one from the underside"
    assert border_line(covers, "throat") == 1 - third
    assert border_line([], "belly") == 1.0


@pytest.mark.parametrize(
    ("told", "beneath", "under", "lies_on"),
    [
        ("core", [("core", "core")], None, "core"),
        ("core", [("core", "skin")], None, "skin"),  # the core has another colour by now
        (None, [("core", "a"), ("core", "b")], None, "a"),
        (None, [("core", "a"), ("padding", "soft")], None, "soft"),
        ("a", [("core", "a"), ("padding", "soft")], None, "a"),
        ("belly", [("core", "a"), ("cover", "belly")], None, "belly"),
        (None, [("core", "a"), ("cover", "belly")], None, "a"),  # covers lie beside each other
        (None, [("detail", "dots")], "body", "body"),
        ("sea", [], "body", "sea"),
        (None, [], None, None),
    ],
)
def test_a_cover_lies_on_what_is_beneath_it_now(told, beneath, under, lies_on):
    assert cover_ground(told, beneath, under) == lies_on
