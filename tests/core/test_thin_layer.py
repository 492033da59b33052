"""What a thin layer under a cover saves."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour.show_through import cover, hiding_power
from wembit.core.colour.thin_layer import Cover, laid_under

RUST, BRICK, WHITE = "#a8502c", "#a33a2a", "#f1ede3"
MICRON = 23.0


def weight(seen, over):
    return cover(seen, over, MICRON, hiding_power(seen)).g_m2


@given(st.floats(0.1, 50), st.integers(1, 4))
def test_a_layer_like_the_cover_saves_the_share_that_hid_the_ground(grams, covers):
    before, after = weight(RUST, WHITE), weight(RUST, BRICK)
    found = laid_under([Cover(grams, before, WHITE)] * covers, (RUST, MICRON), (BRICK, MICRON))
    assert found.whole == pytest.approx(grams * covers)
    assert found.saved == pytest.approx(grams * covers * (1 - after / before))
    assert 0 < found.remains < 1
    assert found.taken == pytest.approx(grams * covers / before * weight(BRICK, WHITE))
    assert found.saved * found.ratio == pytest.approx(found.taken)


def test_a_layer_of_the_grounds_colour_saves_nothing_and_no_cover_needs_none():
    found = laid_under([Cover(3.0, weight(RUST, WHITE), WHITE)], (RUST, MICRON), (WHITE, MICRON))
    assert found.saved == pytest.approx(0, abs=1e-9)
    assert found.remains == pytest.approx(1)
    none = laid_under([], (RUST, MICRON), (BRICK, MICRON))
    assert (none.whole, none.saved, none.remains, none.ratio) == (0, 0, 1, 0)
