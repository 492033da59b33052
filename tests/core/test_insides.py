"""What goes inside: scrap before core wool before coarse wool; what is too good or does not felt never."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour.show_through import cover, hiding_power
from wembit.core.colour.thin_layer import Cover, more_over
from wembit.core.craft.materials import FORMS
from wembit.core.stock.insides import LOAD_G, carding, inside_trouble
from wembit.core.stock.standing_in import Trouble


def test_what_is_laid_inside_first_is_what_nobody_misses():  # common practice
    order = [("scrap", 25), ("core", 30), ("batt", 30), ("batt", 22), ("tops", 26)]
    worth = [inside_trouble(form, micron, "steadily") for form, micron in order]
    assert all(one < two for one, two in pairwise(worth))
    for form, micron, felting in (
        ("locks", 33, "quickly"),
        ("neps", 22, "steadily"),
        ("tops", 18, "quickly"),
        ("tops", 26, "not at all"),
    ):
        assert inside_trouble(form, micron, felting) is None
    assert inside_trouble("core", 30, "slowly") > inside_trouble("core", 30, "quickly")


@given(st.sampled_from(sorted(FORMS)), st.floats(10, 45), st.sampled_from(["quickly", "steadily", "slowly"]))
def test_no_colour_and_nothing_below_nothing(form, micron, felting):
    found = inside_trouble(form, micron, felting)
    assert found is None or found >= 0
    if found is not None:
        assert Trouble(seen=False, inside=found).score == pytest.approx(found)


def test_a_dark_inside_takes_more_of_a_pale_cover_and_a_like_one_no_more():
    pale, old, dark = "#f1ede3", "#e9e2d2", "#4a382b"
    lying = Cover(5.0, cover(pale, old, 22, hiding_power(pale)).g_m2, old)
    assert more_over(pale, 22, lying, old) == pytest.approx(0, abs=1e-9)
    more = more_over(pale, 22, lying, dark)
    assert more == pytest.approx(5 * (cover(pale, dark, 22, hiding_power(pale)).g_m2 / lying.g_m2 - 1))
    assert more > 5, "the cover at least doubles"


@given(st.floats(0.01, 500))
def test_a_load_holds_what_hand_carders_hold(grams):
    loads, minutes = carding(grams)
    assert (loads - 1) * LOAD_G < grams + 1e-6
    assert loads * LOAD_G >= grams - 1e-6
    assert minutes == 5 * loads
