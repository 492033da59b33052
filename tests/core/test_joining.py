"""One order for what has to be ordered soon: by hand, and by its laws."""

import datetime as dt
from decimal import Decimal as D

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.stock.joining import TOGETHER_DAYS, Wanted, joined
from wembit.core.stock.packs import lacking

MONDAY = dt.date(2026, 11, 30)
WANTED = st.lists(
    st.builds(
        Wanted,
        st.integers(),
        st.integers(0, 60).map(lambda n: MONDAY + dt.timedelta(n)),
        st.decimals("0.5", 30, places=2),
    ),
    max_size=8,
    unique_by=lambda each: each.key,
)


def wanted(key, day, cost):
    return Wanted(key, MONDAY + dt.timedelta(day), D(cost))


def test_two_weeks_go_together_and_the_third_waits():
    found = joined([wanted("moss", 20, "5"), wanted("peat", 3, "9.40"), wanted("chalk", 17, "2.90")])
    assert [each.key for each in found.lines] == ["peat", "chalk"]
    assert found.goods == D("12.30")


def test_a_minimum_is_filled_up_with_what_comes_next():
    rows = [wanted("peat", 0, "5"), wanted("late", 50, "9"), wanted("moss", 30, "4")]
    found = joined(rows, minimum=D("8"))
    assert [each.key for each in found.filling] == ["moss"]
    assert joined(rows, minimum=D("100")).goods == 18


def test_a_budget_takes_the_most_urgent_that_fit():
    rows = [wanted("a", 0, "6"), wanted("b", 1, "5"), wanted("c", 2, "3")]
    found = joined(rows, budget=D("13"), postage=D("4"))
    assert [each.key for each in found.lines] == ["a", "c"]
    assert [each.key for each in found.left_out] == ["b"]


@pytest.mark.parametrize(("came", "packs"), [("100", 0), ("75", 1), ("99.5", 1), ("0", 4), ("140", 0), ("50.001", 2)])
def test_packs_that_did_not_come_are_counted_whole(came, packs):
    assert lacking(D(100), D(25), D(came)) == packs


def test_nothing_is_nothing():
    assert joined([]) == joined([], D(5), D(5))


@given(WANTED, st.decimals(0, 60, places=2), st.one_of(st.none(), st.decimals(0, 90, places=2)))
def test_each_is_in_at_most_one_place_and_a_budget_is_never_passed(rows, minimum, budget):
    found = joined(rows, minimum, budget, D(3))
    places = [*found.lines, *found.filling, *found.left_out]
    assert len({each.key for each in places}) == len(places)
    if rows:
        first = min(each.by for each in rows)
        assert all(each.by <= first + dt.timedelta(TOGETHER_DAYS) for each in found.lines)
    if budget is not None and (found.lines or found.filling):
        assert found.goods + 3 <= budget
    if budget is None and rows:
        later = sum(1 for each in rows if each.by > first + dt.timedelta(TOGETHER_DAYS))
        assert found.goods >= minimum or len(found.filling) == later
        without_last = found.goods - (found.filling[-1].cost if found.filling else 0)
        assert not found.filling or without_last < minimum
