"""Needles that break: against scipy's negative binomial distribution and drawn weeks."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from wembit.core.stock.breakage import FEWEST, breakage


@given(st.integers(FEWEST, 60), st.floats(1, 900), st.floats(0.5, 60))
def test_a_week_is_negative_binomial(breaks, hours, a_week):
    """scipy.stats.nbinom: shape `breaks`, and the odds that an hour of the past comes before one of the week."""
    known = breakage(breaks, hours).weekly(a_week)
    mean, variance = stats.nbinom(breaks, hours / (hours + a_week)).stats("mv")
    assert known.weekly_g == pytest.approx(float(mean), rel=1e-9)
    assert known.weekly_sd_g == pytest.approx(float(np.sqrt(variance)), rel=1e-9)


def test_drawn_weeks_scatter_as_much():
    """Ten breaks in 200 hours: rates drawn from their gamma, counts by Poisson."""
    chance = np.random.default_rng(7)
    counts = chance.poisson(chance.gamma(10, 1 / 200, 200_000) * 15)
    known = breakage(10, 200).weekly(15)
    assert known.weekly_g == pytest.approx(counts.mean(), rel=0.02) == 0.75
    assert known.weekly_sd_g == pytest.approx(counts.std(), rel=0.02)
    assert breakage(10, 200).hours_each == 20


@pytest.mark.parametrize(("breaks", "hours"), [(0, 90), (FEWEST - 1, 90), (5, 0)])
def test_too_little_says_nothing(breaks, hours):
    assert breakage(breaks, hours) is None


@given(st.integers(FEWEST, 50), st.floats(1, 500), st.floats(1, 40))
def test_twice_the_hours_break_twice_as_many_and_more_is_known_the_more_broke(breaks, hours, a_week):
    one = breakage(breaks, hours)
    assert one.weekly(2 * a_week).weekly_g == pytest.approx(2 * one.weekly(a_week).weekly_g)
    longer = breakage(4 * breaks, 4 * hours)
    assert longer.weekly(a_week).weekly_g == pytest.approx(one.weekly(a_week).weekly_g)
    assert longer.weekly(a_week).weekly_sd_g < one.weekly(a_week).weekly_sd_g
