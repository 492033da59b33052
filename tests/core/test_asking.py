"""How much the bench asks for."""

from hypothesis import given
from hypothesis import strategies as st

from wembit.core.work.asking import asked_g, bag_from_g

GRAMS = st.floats(0.01, 100)


@given(GRAMS, GRAMS)
def test_what_is_left_is_asked_for_and_else_a_little_more(whole, taken):
    assert asked_g(whole / 3, whole, taken) == whole / 3
    assert asked_g(0.0, whole, 0.0) == whole
    assert 0 < asked_g(0.0, whole, taken) <= 0.1 * whole  # common practice


@given(GRAMS, GRAMS)
def test_no_tuft_that_is_asked_for_is_taken_for_a_bag(asked, most):
    assert bag_from_g(asked, most) > max(asked, most)
