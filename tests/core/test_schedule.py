"""The bench's plan: against Jackson and Horn, against every plan there is of small cases, and by its own laws."""

import datetime as dt
import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.contract.requests import WEEK
from wembit.core.scheduling.bench_hours import DAY, OPENS, BenchHours
from wembit.core.scheduling.dispatch import State, dispatch, greatest_lateness
from wembit.core.scheduling.jobs import Job, Step, finish_day, latest_start
from wembit.core.scheduling.least_lateness import least_late
from wembit.core.scheduling.plan import planned
from wembit.core.verbs import VERBS

MONDAY = dt.date(2026, 11, 30)
EVERY_DAY = dict.fromkeys(WEEK, 2.0)
UNIT = 30.0  # minutes, in which the small cases are counted


def bench(hours=None, off=()):
    return BenchHours(MONDAY, hours or EVERY_DAY, off)


def late(jobs, hours=None, off=()):
    bench_ = bench(hours, off)
    return greatest_lateness(least_late(jobs, bench_), jobs)


def every_plan(jobs, bench_):
    """The least greatest lateness over all plans that work in units, by looking at every one."""
    slots = [day * DAY + OPENS + UNIT * n for day in range(40) for n in range(round(bench_.minutes_on(day) / UNIT))]
    first = tuple((0, round(job.steps[0].minutes / UNIT), job.opens) for job in jobs)
    states = {first: -math.inf}
    best = math.inf
    for slot in slots:
        following = {}
        for state, so_far in states.items():
            can = [n for n, each in enumerate(state) if each and each[2] <= slot]
            for n in can or [None]:
                after, latest = list(state), so_far
                if n is not None:
                    step, left, free = state[n]
                    after[n] = (step, left - 1, free)
                    if left == 1:
                        end = slot + UNIT
                        done = jobs[n].steps[step]
                        if step + 1 < len(jobs[n].steps):
                            after[n] = (step + 1, round(jobs[n].steps[step + 1].minutes / UNIT), end + done.wait)
                        else:
                            after[n] = None
                            latest = max(latest, finish_day(end + done.wait, done) - jobs[n].due)
                key = tuple(after)
                if not any(key):
                    best = min(best, latest)
                elif latest < following.get(key, math.inf):
                    following[key] = latest
        states = {key: latest for key, latest in following.items() if latest < best}
        if not states:
            return best
    raise AssertionError("forty days are too few")


steps_of = st.lists(
    st.builds(Step, st.integers(1, 4).map(lambda n: n * UNIT), st.sampled_from([0.0, 0.0, 120.0, 720.0, 2000.0])),
    min_size=1,
    max_size=2,
).map(tuple)
small = st.lists(st.builds(Job, st.integers(0, 4), steps_of, st.integers(0, 3)), min_size=1, max_size=4)


@settings(max_examples=25, deadline=None)
@given(small)
def test_no_plan_of_a_small_case_is_less_late(jobs):
    assert late(jobs) == every_plan(jobs, bench())


@settings(max_examples=10, deadline=None)
@given(small)
def test_nor_where_some_days_are_off_and_some_short(jobs):
    hours = dict(zip(WEEK, (1.0, 0.0, 2.0, 0.5, 0.0, 3.0, 0.0), strict=True))
    off = [MONDAY + dt.timedelta(2)]
    assert late(jobs, hours, off) == every_plan(jobs, bench(hours, off))


@given(st.lists(st.tuples(st.integers(1, 400), st.integers(0, 9)), min_size=1, max_size=6))
def test_jackson_1955_the_order_of_due_dates_is_least_late(rows):
    """J. R. Jackson 1955: of all orders, that of the due dates has the least greatest lateness."""
    jobs = [Job(due, (Step(float(minutes)),)) for minutes, due in rows]

    def of(order):
        end, worst = 0.0, -math.inf
        for which in order:
            end += jobs[which].steps[0].minutes
            worst = max(worst, finish_day(bench().earliest(end), jobs[which].steps[0]) - jobs[which].due)
        return worst

    some = itertools.islice(itertools.permutations(range(len(jobs))), 200)
    assert late(jobs) <= min(of(order) for order in some)
    assert late(jobs) == of(sorted(range(len(jobs)), key=lambda which: jobs[which].due))


def test_a_worked_example_of_interruption():
    """Horn 1974: an urgent job that comes later interrupts; a day has two hours."""
    jobs = [Job(9, (Step(600.0),)), Job(1, (Step(60.0),), ready=1)]
    state = least_late(jobs, bench())
    assert state.finished == [5, 1]
    assert state.by_day() == {0: 120, 1: 120, 2: 120, 3: 120, 4: 120, 5: 60}


def test_a_wait_runs_by_the_clock_and_needs_no_hands():
    glued = Job(1, (Step(60.0, 720.0), Step(30.0)))
    other = Job(1, (Step(60.0),))
    state = least_late([glued, other], bench())
    assert state.finished == [1, 0], "while the glue dries the other one is made"
    assert least_late([Job(0, (Step(60.0, 14 * 60.0),))], bench()).finished == [1], (
        "10:00 and fourteen hours are midnight"
    )
    assert least_late([Job(0, (Step(60.0, 13.9 * 60),))], bench()).finished == [0]


def test_hands_that_work_until_midnight_end_on_that_day():
    assert least_late([Job(0, (Step(900.0),))], bench(dict.fromkeys(WEEK, 15.0))).finished == [0]


@settings(max_examples=20, deadline=None)
@given(small)
def test_the_latest_start_is_the_last_day_from_which_it_is_in_time(jobs):
    job = Job(jobs[0].due + 20, jobs[0].steps)
    start = latest_start(job, bench())

    def alone(day):
        return least_late([Job(job.due, job.steps, day)], bench()).finished[0]

    assert alone(start) <= job.due < alone(start + 1)


def test_the_calendar_reaches_as_far_as_dates_do():
    far = (dt.date(9999, 12, 30) - MONDAY).days
    assert latest_start(Job(far, (Step(60.0),)), bench()) == far
    with pytest.raises(OverflowError):
        least_late([Job(0, (Step(1e9),))], bench())


def test_the_latest_start_may_lie_before_today():
    assert latest_start(Job(0, (Step(480.0),)), bench()) == -3
    assert latest_start(Job(0, (Step(480.0),)), bench(off=[MONDAY - dt.timedelta(1)])) == -4


@settings(max_examples=12, deadline=None)
@given(st.lists(st.builds(Job, st.integers(-3, 40), steps_of, st.integers(0, 20)), min_size=6, max_size=30))
def test_many_jobs_are_no_later_than_by_due_date_and_every_minute_is_worked_once(jobs):
    state = least_late(jobs, bench())
    by_due = dispatch(State.at_first(jobs), jobs, bench(), lambda which, step: jobs[which].due)
    assert greatest_lateness(state, jobs) <= greatest_lateness(by_due, jobs)
    assert sum(state.by_day().values()) == pytest.approx(sum(step.minutes for job in jobs for step in job.steps))
    assert all(minutes <= 120 + 1e-6 for minutes in state.by_day().values())
    assert all(begun >= job.opens for begun, job in zip(state.begun, jobs, strict=True))


@given(st.floats(0, 5000), st.integers(-30, 30))
def test_the_clock_and_the_work_done_are_each_other_s_inverse(work, day):
    hours = dict(zip(WEEK, (1.0, 0.0, 2.5, 0.5, 0.0, 15.0, 0.25), strict=True))
    there = bench(hours, [MONDAY + dt.timedelta(n) for n in (-9, 3, 5, 6, 40)])
    assert there.work_at(there.earliest(work)) == pytest.approx(work, abs=1e-5)
    assert there.work_at(there.goes_on(work)) == pytest.approx(work, abs=1e-5)
    assert there.earliest(work) <= there.goes_on(work) + 1e-6
    assert there.until(day + 1) - there.until(day) == pytest.approx(there.minutes_on(day))
    assert there.until(0) == 0


def test_weeks_are_told_by_their_mondays_the_first_from_today_on():
    wednesday = MONDAY + dt.timedelta(2)
    _, load = planned(wednesday, EVERY_DAY, [Job(3, (Step(900.0),))])
    assert [(row.week, row.minutes, row.capacity_min) for row in load] == [
        (MONDAY, 600.0, 600.0), (MONDAY + dt.timedelta(7), 300.0, 840.0)
    ]  # fmt: skip


def test_the_answer_of_the_command_line():
    answer = VERBS["schedule"][1](
        {
            "today": "2026-11-30",
            "hours": dict.fromkeys(WEEK, 2),
            "days_off": ["2026-12-01"],
            "jobs": [
                {"id": "otter", "due": "2026-12-01", "steps": [{"minutes": 150, "wait_hours": 12}]},
                {"id": "nothing", "due": "2026-12-04", "steps": [], "ready": "2026-12-02"},
            ],
        }
    )
    assert answer == {
        "jobs": [
            {
                "id": "otter",
                "latest_start": "2026-11-29",
                "start": "2026-11-30",
                "finish": "2026-12-02",
                "late_days": 1,
            },
            {
                "id": "nothing",
                "latest_start": "2026-12-04",
                "start": "2026-12-02",
                "finish": "2026-12-02",
                "late_days": 0,
            },
        ],
        "load": [{"week": "2026-11-30", "minutes": 150, "capacity_min": 720}],
    }
