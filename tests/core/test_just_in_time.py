"""The latest plan of a bench: against the arithmetic of single machines, and by its own laws."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.contract.requests import WEEK
from wembit.core.scheduling.bench_hours import BenchHours
from wembit.core.scheduling.dispatch import greatest_lateness
from wembit.core.scheduling.jobs import Job, Step
from wembit.core.scheduling.just_in_time import evenly, just_in_time, latest
from wembit.core.scheduling.least_lateness import least_late
from wembit.core.scheduling.plan import planned

MONDAY = dt.date(2026, 11, 30)
TWO_HOURS = BenchHours(MONDAY, dict.fromkeys(WEEK, 2.0))
HOURS = dict(zip(WEEK, (1.0, 0.0, 2.5, 0.0, 1.0, 4.0, 0.0), strict=True))
EVENINGS = BenchHours(MONDAY, HOURS)

JOBS = st.lists(
    st.builds(
        Job,
        st.integers(0, 20),
        st.lists(st.builds(Step, st.floats(0, 300), st.floats(0, 3000)), min_size=1, max_size=4).map(tuple),
    ),
    min_size=1,
    max_size=8,
)
PLAIN = JOBS.map(lambda jobs: [Job(job.due, tuple(Step(step.minutes) for step in job.steps)) for job in jobs])


def minutes_of(job):
    return sum(step.minutes for step in job.steps)


def test_a_job_lies_just_before_its_day():
    (only,) = just_in_time([Job(5, (Step(300),))], TWO_HOURS)
    assert only.minutes == {3: 60, 4: 120, 5: 120}
    assert only.begin == 3 and only.over == 0


def test_what_is_due_first_makes_room_for_what_is_due_after_it():
    first, second = just_in_time([Job(4, (Step(120),)), Job(5, (Step(240),))], TWO_HOURS)
    assert second.minutes == {4: 120, 5: 120}
    assert first.minutes == {3: 120}


def test_a_wait_at_the_end_and_between_moves_the_hands_before_it():
    (only,) = just_in_time([Job(5, (Step(60), Step(60, wait=24 * 60)))], TWO_HOURS)
    assert only.minutes == {4: 120}
    (only,) = just_in_time([Job(5, (Step(60, wait=24 * 60), Step(60)))], TWO_HOURS)
    assert only.minutes == {4: 60, 5: 60}


def test_what_has_no_day_left_is_over():
    (only,) = just_in_time([Job(1, (Step(300),))], TWO_HOURS)
    assert (only.minutes, only.over) == ({0: 120, 1: 120}, 60)
    (past,) = just_in_time([Job(-3, (Step(50),))], TWO_HOURS)
    assert (past.begin, past.minutes, past.over) == (0, {}, 50)


def test_a_day_off_is_left_out_and_nothing_to_do_begins_never():
    off = just_in_time([Job(2, (Step(200),))], BenchHours(MONDAY, dict.fromkeys(WEEK, 2.0), [MONDAY + dt.timedelta(1)]))
    assert off[0].minutes == {0: 80, 2: 120}
    assert just_in_time([Job(2, ()), Job(3, (Step(0),))], TWO_HOURS)[0].begin is None
    assert just_in_time([], TWO_HOURS) == []


@given(JOBS)
def test_every_minute_is_worked_once_within_the_hours_and_not_after_its_day(jobs):
    stretches = just_in_time(jobs, EVENINGS)
    days: dict[int, float] = {}
    for job, stretch in zip(jobs, stretches, strict=True):
        assert sum(stretch.minutes.values()) + stretch.over == pytest.approx(minutes_of(job), abs=1e-3)
        assert all(0 <= day <= job.due for day in stretch.minutes)
        for day, minutes in stretch.minutes.items():
            days[day] = days.get(day, 0.0) + minutes
    assert all(minutes <= EVENINGS.minutes_on(day) + 1e-3 for day, minutes in days.items())


@given(PLAIN)
def test_without_waits_what_is_over_is_what_no_plan_could_do(jobs):
    """By each day only so much can be asked as there are hours until then (the condition of Jackson's rule)."""
    asked = max(
        sum(minutes_of(job) for job in jobs if job.due <= day)
        - sum(EVENINGS.minutes_on(each) for each in range(day + 1))
        for day in range(21)
    )
    over = sum(stretch.over for stretch in just_in_time(jobs, EVENINGS))
    assert over == pytest.approx(max(0.0, asked), abs=1e-2)


@given(PLAIN)
def test_without_waits_something_is_over_just_where_the_best_plan_is_late(jobs):
    rows, _ = planned(MONDAY, HOURS, jobs)
    over = sum(stretch.over for stretch in just_in_time(jobs, EVENINGS))
    if over > 1e-2:
        assert any(row.late_days for row in rows)
    if over < 1e-6:
        assert not any(row.late_days for row in rows)


@given(JOBS)
def test_what_is_over_is_what_the_plan_does_after_its_day_and_the_rest_lies_before_it(jobs):
    state = least_late(jobs, EVENINGS)
    days: dict[int, float] = {}
    for which, (job, stretch) in enumerate(zip(jobs, latest(jobs, EVENINGS, state), strict=True)):
        after = sum(minutes for (n, day), minutes in state.worked.items() if n == which and day > job.due)
        assert stretch.over == pytest.approx(after, abs=1e-6)
        assert sum(stretch.minutes.values()) + stretch.over == pytest.approx(minutes_of(job), abs=1e-2)
        assert all(0 <= day <= job.due for day in stretch.minutes)
        for day, minutes in stretch.minutes.items():
            days[day] = days.get(day, 0.0) + minutes
    assert all(minutes <= EVENINGS.minutes_on(day) + 1e-2 for day, minutes in days.items())


def test_what_an_order_blind_to_waits_would_leave_keeps_its_days_and_the_others_lie_late():
    """Two that dry between their steps fit into four days only the one way; a third has all the time there is."""
    jobs = [
        Job(3, (Step(120, wait=12 * 60), Step(60, wait=24 * 60))),
        Job(1, (Step(60, wait=12 * 60), Step(60))),
        Job(20, (Step(120),)),
    ]
    assert any(lies.over for lies in just_in_time(jobs[:2], TWO_HOURS)), "else this shows nothing"
    state = least_late(jobs, TWO_HOURS)
    assert greatest_lateness(state, jobs) <= 0
    rows = latest(jobs, TWO_HOURS, state)
    assert [row.over for row in rows] == [0, 0, 0]
    assert rows[2].minutes == {20: 120}, "not drawn in for the glued one"


def test_minutes_that_are_spoken_for_are_not_there():
    rest = TWO_HOURS.without({1: 90, 3: 500})
    assert [rest.minutes_on(day) for day in range(-1, 5)] == [120, 120, 30, 120, 0, 120]
    assert [rest.until(day) for day in (-1, 0, 2, 4, 5)] == [-120, 0, 150, 270, 390]
    again = rest.without({1: 30, 2: 20})
    assert [again.minutes_on(day) for day in range(5)] == [120, 0, 100, 0, 120]


def test_the_late_one_is_over_and_no_other():
    jobs = [Job(1, (Step(100),)), Job(3, (Step(600),))]
    first, second = latest(jobs, TWO_HOURS, least_late(jobs, TWO_HOURS))
    assert first.over == 0 and sum(first.minutes.values()) == 100
    assert second.over == 600 - (4 * 120 - 100)


def test_without_hours_work_is_spread_over_its_days():
    jobs = [Job(3, (Step(90), Step(30))), Job(-2, (Step(50),)), Job(5, ())]
    first, past, nothing = evenly(jobs, [1, -9, 0])
    assert first.minutes == {1: 40, 2: 40, 3: 40}
    assert past.minutes == {0: 50}
    assert nothing.begin is None
