"""The plan's days by width: near ones as wide as ever, long empty stretches folded."""

import datetime as dt
import re
from dataclasses import dataclass

from hypothesis import given
from hypothesis import strategies as st

from tests.web import factories as make
from tests.web.helpers import get
from wembit.web.plan.days_axis import DAY_PX, FOLD_PX, KEPT_BEFORE, LEAST_DAY_PX, days_axis
from wembit.web.plan.plan_chart import calendar

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


@dataclass
class Planned:
    start: dt.date
    due: dt.date
    pk: int = 1
    name: str = "Market"
    figure: str = "Hare"
    makings: int = 2


def test_a_project_two_years_away_leaves_the_near_ones_their_width():
    near = Planned(MONDAY, MONDAY + dt.timedelta(20))
    far = Planned(MONDAY + dt.timedelta(700), MONDAY + dt.timedelta(730), 2)
    alone, both = (calendar(each, {}, {}, MONDAY) for each in ([near], [near, far]))
    assert alone.folds == []
    assert len(both.folds) == 1
    assert both.folds[0][2] > 90, "weeks that are folded away"
    assert float(both.bars[0].width) > 0.6 * float(alone.bars[0].width)
    assert float(both.bars[0].width) >= 20 * 8
    assert both.width < 1400


def test_near_projects_are_not_folded_and_a_day_is_never_a_hair():
    rows = [Planned(MONDAY + dt.timedelta(21 * n), MONDAY + dt.timedelta(21 * n + 14), n) for n in range(40)]
    laid = calendar(rows, {}, {}, MONDAY)
    assert laid.folds == []
    assert LEAST_DAY_PX * 15 - 0.1 <= float(laid.bars[0].width) <= DAY_PX * 15


def test_the_plan_says_how_many_weeks_are_folded(client, owner):
    hare = make.figure(owner, "Hare")
    make.project(owner, hare, days=20)
    make.project(owner, hare, days=820, start=800, name="Christening")
    page = get(client, "plan/")
    assert re.search(r"1\d\d weeks</text>", page)
