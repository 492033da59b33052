"""Shares of mixed cores always fill the part."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.grams.core_shares import filled_up

SHARES = st.lists(st.floats(0, 1), min_size=1, max_size=6)


@given(SHARES, st.data())
def test_they_add_up_and_the_chosen_one_stays(shares, data):
    chosen = data.draw(st.none() | st.integers(0, len(shares) - 1))
    filled = filled_up(shares, chosen)
    assert sum(filled) == pytest.approx(1)
    assert min(filled) >= 0
    if chosen is not None and len(shares) > 1:
        assert filled[chosen] == shares[chosen]


def test_the_others_divide_the_rest_as_they_did_before():
    assert filled_up([0.6, 0.2, 0.2], 0) == pytest.approx([0.6, 0.2, 0.2])
    assert filled_up([0.5, 0.6, 0.2], 0) == pytest.approx([0.5, 0.375, 0.125])
    assert filled_up([0.4, 0, 0], 0) == pytest.approx([0.4, 0.3, 0.3])
    assert filled_up([0.3]) == [1.0]
    assert filled_up([]) == []
