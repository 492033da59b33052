"""Several benches: against one bench with all hours, every way of giving jobs out, and by its own laws."""

import datetime as dt
import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.contract.requests import WEEK
from wembit.core.scheduling.bench_hours import BenchHours
from wembit.core.scheduling.benches import Asked, shared_out, together
from wembit.core.scheduling.dispatch import greatest_lateness
from wembit.core.scheduling.jobs import Job, Step, beside
from wembit.core.scheduling.least_lateness import least_late

MONDAY = dt.date(2026, 11, 30)
HERS = BenchHours(MONDAY, dict(zip(WEEK, (1.0, 0.0, 2.5, 0.0, 1.0, 4.0, 0.0), strict=True)))
HIS = BenchHours(MONDAY, dict(zip(WEEK, (0.0, 3.0, 0.0, 0.0, 2.0, 0.0, 2.0), strict=True)), [MONDAY + dt.timedelta(1)])
TWO_HOURS = BenchHours(MONDAY, dict.fromkeys(WEEK, 2.0))
NEVER = BenchHours(MONDAY, dict.fromkeys(WEEK, 0.0))
STEPS = st.lists(st.builds(Step, st.floats(0, 300), st.floats(0, 3000)), min_size=1, max_size=3).map(tuple)
ABLE = st.sampled_from([(0, 1), (0,), (1,)])
ASKED = st.lists(
    st.builds(
        Asked,
        st.builds(Job, st.integers(-3, 25), STEPS, priority=st.integers(0, 2)),
        st.floats(0.1, 30),
        ABLE,
    ),
    min_size=1,
    max_size=7,
)


def plain(minutes, due, able=(0, 1), makings=1.0, priority=0):
    return Asked(Job(due, (Step(minutes),), priority=priority), makings, able)


def late(rows, asked):
    return max((row.finish - MONDAY).days - each.job.due for row, each in zip(rows, asked, strict=True))


@given(ASKED)
def test_nothing_is_lost_and_nobody_works_beyond_her_hours(asked):
    found = together(asked, [HERS, HIS])
    days: dict[int, float] = {}
    for each, stretch, whose, row in zip(asked, found.stretches, found.makings, found.rows, strict=True):
        assert sum(stretch.minutes.values()) + stretch.over == pytest.approx(each.minutes, abs=1e-2)
        assert sum(whose.values()) == pytest.approx(each.makings)
        assert set(whose) <= set(each.able)
        assert row.late_days == max(0, (row.finish - MONDAY).days - each.job.due)
        for day, minutes in stretch.minutes.items():
            days[day] = days.get(day, 0.0) + minutes
    assert all(minutes <= HERS.minutes_on(day) + HIS.minutes_on(day) + 1e-2 for day, minutes in days.items())


@given(
    st.lists(st.builds(plain, st.floats(1, 400), st.integers(0, 20), makings=st.integers(1, 9)), min_size=1, max_size=8)
)
def test_two_are_no_later_than_one_of_them_and_no_sooner_than_both_at_one_bench(asked):
    """Jackson 1955 gives the least of one bench; both makers' hours at one bench can only be sooner."""
    jobs = [each.job for each in asked]
    alone = [greatest_lateness(least_late(jobs, bench), jobs) for bench in (HERS, HIS)]
    both = BenchHours(MONDAY, dict.fromkeys(WEEK, 0.0))
    both.week = [a + b for a, b in zip(HERS.week, HIS.week, strict=True)]
    both.before_in_week = [sum(both.week[:n]) for n in range(8)]
    assert (
        greatest_lateness(least_late(jobs, both), jobs) <= late(together(asked, [HERS, HIS]).rows, asked) <= min(alone)
    )


@given(st.lists(st.builds(plain, st.floats(10, 600), st.integers(0, 6)), min_size=1, max_size=5))
def test_whole_jobs_are_given_out_nearly_as_well_as_they_can_be(asked):
    """Graham 1969, for lateness: on two like machines the list is no later than the best by half of the longest job."""
    best = math.inf
    for way in itertools.product((0, 1), repeat=len(asked)):
        here = []
        for bench in (0, 1):
            jobs = [each.job for each, whose in zip(asked, way, strict=True) if whose == bench]
            if jobs:
                here.append(greatest_lateness(least_late(jobs, TWO_HOURS), jobs))
        best = min(best, max(here))
    longest = max(each.minutes for each in asked) / 2 / 120  # days of two hours
    assert late(together(asked, [TWO_HOURS, TWO_HOURS]).rows, asked) <= best + math.ceil(longest)


def test_ten_snails_are_shared_by_the_hours_that_each_has():
    """Four hours a week here, eight there: of twelve makings of an hour four and eight, done in one week."""
    few, many = (BenchHours(MONDAY, dict.fromkeys(WEEK, 0.0) | {"sat": hours}) for hours in (4.0, 8.0))
    asked = [plain(720, 6, makings=12)]
    found = together(asked, [few, many])
    assert found.makings == [{0: pytest.approx(4), 1: pytest.approx(8)}]
    assert found.rows[0].late_days == 0


def test_who_leaves_it_to_others_gets_none_of_it():
    found = shared_out([plain(600, 3, able=(1,), makings=5), plain(60, 3, makings=1)], [TWO_HOURS, TWO_HOURS])
    assert found == [{1: pytest.approx(5)}, {0: 1}]


def test_what_nobody_with_hours_can_make_goes_to_whoever_has_some():
    assert shared_out([plain(60, 3, able=(0,))], [NEVER, TWO_HOURS]) == [{1: 1}]
    with pytest.raises(OverflowError):
        shared_out([plain(60, 3)], [NEVER])


def test_makings_in_two_sizes_are_worked_beside_each_other():
    small, large = [Step(10), Step(5, wait=60)], [Step(30), Step(15, wait=90)]
    assert beside(small, large) == [Step(40), Step(20, wait=90)]
    assert beside([], large) == large
    assert beside(small, large[:1]) == [*small, large[0]], "other steps: one after another"


def test_a_promise_comes_before_what_is_due_sooner():
    """Two hours a day: the promise takes both days; the stock, due first, waits for it."""
    asked = [plain(120, 0, priority=1), plain(240, 1, priority=0)]
    rows = together(asked, [TWO_HOURS]).rows
    assert [(row.finish - MONDAY).days for row in rows] == [2, 1]
    level = together([plain(120, 0), plain(240, 1)], [TWO_HOURS]).rows
    assert [(row.finish - MONDAY).days for row in level] == [0, 2]


@given(st.lists(st.builds(Job, st.integers(-3, 25), STEPS, priority=st.integers(0, 2)), min_size=1, max_size=7))
def test_what_can_wait_changes_nothing_for_what_comes_before_it(jobs):
    jobs = [Job(job.due, tuple(Step(step.minutes) for step in job.steps), priority=job.priority) for job in jobs]
    first = [job for job in jobs if job.priority == min(job.priority for job in jobs)]
    beside = [day for day, job in zip(least_late(jobs, HERS).finished, jobs, strict=True) if job in first]
    assert beside == least_late(first, HERS).finished
