"""Lead times as told and as they were."""

import statistics

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.stock.forecast import lead_time
from wembit.core.stock.lead_times import FEWEST, TOLD_COUNTS, lead_of

days = st.lists(st.integers(1, 40).map(float), min_size=FEWEST, max_size=30)


@given(st.floats(1, 30), st.lists(st.floats(1, 30), max_size=FEWEST - 1))
def test_few_deliveries_leave_it_as_it_is_told(told, taken):
    assert lead_of(told, taken) == (told, 0.0)


def test_a_worked_example():
    """Told 6, taken 5, 7, 12: (6 + 6 + 5 + 7 + 12) / 5 = 7.2; squares 4.84, 0.04 and 23.04 by 2 are 13.96."""
    mean, sd = lead_of(6, [5, 7, 12])
    assert (mean, sd**2) == pytest.approx((7.2, 13.96))


@given(st.floats(1, 30), days)
def test_it_lies_between_what_is_told_and_what_was(told, taken):
    mean, sd = lead_of(told, taken)
    was = statistics.fmean(taken)
    assert min(told, was) - 1e-9 <= mean <= max(told, was) + 1e-9
    assert sd >= statistics.stdev(taken) - 1e-9


@given(days)
def test_a_supplier_who_scatters_is_asked_earlier(taken):
    mean, sd = lead_of(6, taken)
    assert lead_time(mean, sd, 0.95) >= lead_time(mean, sd, 0.8)


def test_many_deliveries_outweigh_what_is_told():
    assert lead_of(6, [10.0] * 50)[0] == pytest.approx(10, abs=0.2)
    assert TOLD_COUNTS < FEWEST
