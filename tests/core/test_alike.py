"""How alike two pieces have to be, by what the part does."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.craft.part_kinds import KINDS
from wembit.core.work.alike import CLOSE, EASY, alike_within, differ

GRAMS = st.floats(0, 500)


def test_legs_are_held_closer_than_bodies_and_ears_less():
    assert alike_within("leg") < alike_within("body") < alike_within("ear")
    assert alike_within("something of one's own") == alike_within("body")
    assert not EASY & set(CLOSE)
    assert set(CLOSE) | EASY <= {*KINDS, "toe"}, "each is a part that there is; toes come with the plans of birds"


@given(GRAMS, GRAMS, st.floats(0.01, 0.5))
def test_which_of_the_two_is_meant_makes_no_difference(one, other, within):
    assert differ(one, other, within) == differ(other, one, within)
    assert not differ(one, one, within)


@pytest.mark.parametrize(("other", "differs"), [(1.04, False), (1.06, True), (0.96, False), (0.94, True)])
def test_five_in_a_hundred_of_their_mean(other, differs):
    assert differ(1.0, other, 0.05) is differs
