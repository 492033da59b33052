"""What a wisp, a pinch and a handful weigh."""

import statistics

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.learning.handfuls import NEWEST, shown
from wembit.core.units import Hand, Unreadable, weight

GRAMS = st.lists(st.floats(0.01, 30), min_size=2, max_size=NEWEST)


@given(GRAMS)
def test_mean_and_scatter_are_those_of_the_statistics_module(grams):
    found = shown(grams)
    assert found.mean_g == pytest.approx(statistics.mean(grams))
    assert found.sd_g == pytest.approx(statistics.stdev(grams), abs=1e-9)


def test_three_are_needed_and_the_newest_count():
    assert not shown([]).known
    assert not shown([1, 2]).known
    assert shown([1, 2, 3]).known
    assert shown([100.0] * 5 + [1.0] * NEWEST).mean_g == 1


def test_many_scatter_less_than_one():
    """Eight in ten of what so many weigh together: against handfuls drawn by lot."""
    draw = np.random.default_rng(5)
    one = shown(list(draw.normal(2.0, 0.5, 20)))
    sums = draw.normal(one.mean_g, one.sd_g, (20_000, 6)).sum(axis=1)
    range_ = one.times(6)
    assert np.mean((sums > range_.p10) & (sums < range_.p90)) == pytest.approx(0.8, abs=0.02)
    assert range_.p90 / range_.p10 < one.times(1).p90 / one.times(1).p10


@pytest.mark.parametrize(
    ("text", "grams"), [("a wisp", 0.05), ("3 wisps", 0.15), ("two handfuls", 9), ("half a handful", 2.25)]
)
def test_they_are_weights_once_the_hand_is_known(text, grams):
    assert weight(text, hand=Hand(wisp_g=0.05, handful_g=4.5)).value == pytest.approx(grams)
    with pytest.raises(Unreadable, match="on the page of your hand"):
        weight(text)
