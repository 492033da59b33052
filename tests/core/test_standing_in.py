"""What speaks against a stand-in: laws of its order."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.stock.standing_in import Trouble, makings_for

SOME = st.builds(
    Trouble,
    de00=st.floats(0, 60),
    seen=st.booleans(),
    other_form=st.booleans(),
    other_breed=st.booleans(),
    other_felting=st.booleans(),
    micron_um=st.floats(-20, 20),
    mottle=st.none() | st.floats(0, 80),
    share_of_free=st.floats(0, 1),
    days=st.integers(0, 40),
    days_late=st.integers(0, 40),
    cost=st.floats(0, 90),
    left_short=st.floats(0, 1),
)


@given(SOME)
def test_nothing_is_better_than_the_same_wool_at_hand(trouble):
    assert trouble.score >= Trouble().score == 0


@given(SOME, st.floats(0.01, 20))
def test_more_of_any_trouble_is_worse(trouble, more):
    assert replace(trouble, de00=trouble.de00 + more).score > trouble.score
    assert replace(trouble, days=trouble.days + 1).score > trouble.score
    assert replace(trouble, cost=trouble.cost + more).score > trouble.score


@given(SOME)
def test_what_nobody_sees_matters_less(trouble):
    assert replace(trouble, seen=False).score <= replace(trouble, seen=True).score


@pytest.mark.parametrize(
    ("short", "left", "wanted", "makings"),
    [
        (5.0, 4, None, 1),  # all of a making takes the other wool
        (10.0, 4, None, 1),
        (10.1, 4, None, 1),  # a hundredth of a making is no making
        (10.3, 4, None, 2),
        (90.0, 4, None, 4),  # no more than are left
        (90.0, 4, 2, 2),  # as the maker wants
        (5.0, 0, None, 1),
    ],
)
def test_in_how_many_makings_another_wool_stands_in(short, left, wanted, makings):
    assert makings_for(short, 10.0, left, wanted) == makings


def test_what_takes_nothing_stands_in_once():
    assert makings_for(5.0, 0.0, 3) == 1
