"""The plan's days by width: near ones as wide as ever, long empty stretches folded."""

import datetime as dt
import re

from hypothesis import given
from hypothesis import strategies as st

from tests.web import factories as make
from tests.web.helpers import get
from wembit.web.plan.days_axis import DAY_PX, FOLD_PX, KEPT_BEFORE, LEAST_DAY_PX, days_axis
from wembit.web.plan.sill.layout import edges_of, shown_days
from wembit.web.plan.sill.rope import Work

MONDAY = dt.date(2026, 11, 2)
days = st.integers(0, 2000).map(lambda n: MONDAY + dt.timedelta(n))


@given(marks=st.lists(days, max_size=9))
def test_later_days_never_lie_further_left_and_days_round_a_mark_are_open(marks):
    last = max([MONDAY + dt.timedelta(30), *marks]) + dt.timedelta(9)
    axis = days_axis(MONDAY, last, marks, 20)
    xs = [axis.x(MONDAY + dt.timedelta(n)) for n in range((last - MONDAY).days + 1)]
    assert xs[0] == 20
    assert xs == sorted(xs)
    for one, two in zip(axis.stretches, axis.stretches[1:], strict=False):
        assert one.end == two.first
        assert abs(one.x + one.width - two.x) < 1e-6
    for mark in marks:
        for before in range(KEPT_BEFORE):
            day = mark - dt.timedelta(before)
            assert day <= MONDAY or abs(axis.x(day) - axis.x(day - dt.timedelta(1)) - axis.day_px) < 1e-6
    assert all(abs(fold.width - FOLD_PX) < 1e-6 for fold in axis.folds)
    assert not any(fold.first <= day < fold.end for fold in axis.folds for day in axis.mondays)


def laid(dues):
    """The days of projects that are begun ten days before each of these days, counted from a Monday."""
    works = [Work({}, dict.fromkeys(range(due - 10, due + 1), 1.0), 0.0, due) for due in dues]
    axis = shown_days(works, MONDAY, 20.0, 812.0)
    return axis, edges_of(axis, MONDAY)


def test_a_project_two_years_away_leaves_the_near_ones_their_width():
    (alone, edges), (both, edges_too) = laid([20]), laid([20, 730])
    assert alone.folds == []
    assert len(both.folds) == 1
    assert both.folds[0].days / 7 > 90, "weeks that are folded away"
    near, near_too = (each[21] - each[10] for each in (edges, edges_too))
    assert near_too > 0.6 * near
    assert near_too >= 11 * 8
    assert max(edges_too.values()) < 1400


def test_near_projects_are_not_folded_and_a_day_is_never_a_hair():
    axis, edges = laid([21 * n + 14 for n in range(40)])
    assert axis.folds == []
    assert LEAST_DAY_PX - 0.1 <= edges[11] - edges[10] <= DAY_PX


def test_the_plan_says_how_many_weeks_are_folded(client, owner):
    hare = make.figure(owner, "Hare")
    make.project(owner, hare, days=20)
    make.project(owner, hare, days=820, start=800, name="Christening")
    page = get(client, "plan/")
    assert re.search(r"1\d\d weeks</text>", page)
