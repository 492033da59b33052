"""Odds of running short: against closed forms of scipy, against drawn futures, and by their own laws."""

import datetime as dt
import itertools
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import stats

from wembit.core.stock.forecast import Dated, Fibre, Habit, futures, lead_time
from wembit.core.verbs import VERBS

TODAY = dt.date(2026, 11, 30)
PACKS = [(50.0, 4.9), (100.0, 8.8)]


def day(number):
    return TODAY + dt.timedelta(number)


def future(**told):
    service = told.pop("service", 0.9)
    return futures(TODAY, [Fibre(**{"packs": PACKS, **told})], service=service)[0]


def drawn(fibre, days, count=25_000, seed=1):
    """End-of-day balances (count, days) of so many futures, drawn one by one as the model says."""
    chance = np.random.default_rng(seed)
    balance, found = np.full(count, fibre.on_hand), np.zeros((count, days))
    mean, sd = fibre.habit.weekly_g, fibre.habit.weekly_sd_g
    for number in range(days):
        for each in fibre.receipts:
            balance = balance + each.grams * (max(0, (each.date - TODAY).days) == number)
        if mean:
            balance = balance - chance.gamma(mean**2 / (7 * sd**2), sd**2 / mean, count)
        for each in fibre.demands:
            if max(0, (each.date - TODAY).days) == number:
                balance = balance - each.grams * np.exp(each.sigma * chance.standard_normal(count))
        found[:, number] = balance
    return found


CASES = {
    "habit, two plans, a parcel": Fibre(
        100, [Dated(day(20), 30, 0.3), Dated(day(40), 25, 0.5)], [Dated(day(35), 20)], Habit(7, 5)
    ),
    "now and then much": Fibre(60, [Dated(day(5), 10, 1.0), Dated(day(60), 5, 2.0)], [], Habit(3, 9)),
    "two parcels": Fibre(40, [Dated(day(3), 5, 0.25)] * 3, [Dated(day(10), 30), Dated(day(24), 30)], Habit(14, 3)),
    "a plan of which nobody knows": Fibre(30, [Dated(day(30), 20, 0.25), Dated(day(90), 3, 5.0)], [], Habit(0.5, 0.2)),
    "small before large": Fibre(205, [Dated(day(2), 3, 0.1), Dated(day(50), 200, 0.4)], [Dated(day(2), 0.5)]),
    "nothing there": Fibre(0, [Dated(day(8), 20, 0.5)], [], Habit(4, 2)),
    "owed already": Fibre(-3, [Dated(day(8), 20, 1.0)], [], Habit(1, 4)),
    "next to nothing": Fibre(0.02, [Dated(day(30), 5, 0.3)], [], Habit(4, 3)),
    "nothing until a parcel": Fibre(0, [], [Dated(day(12), 9)], Habit(2, 2)),
    "all of it taken at once": Fibre(10, [Dated(day(2), 10)], [Dated(day(9), 20)], Habit(3, 3)),
    "on a parcel's morning": Fibre(10, [Dated(day(14), 12, 0.4)], [Dated(day(14), 5)], Habit(1, 1)),
}


@pytest.mark.sampled("drawn futures", 5)
@pytest.mark.parametrize("fibre", CASES.values(), ids=CASES)
def test_odds_and_balances_are_those_of_drawn_futures(fibre):
    found = futures(TODAY, [fibre])[0]
    balances = drawn(fibre, 181)
    short = np.maximum.accumulate(balances < 0, axis=1).mean(axis=0)
    for row in found.levels:
        number = (row.date - TODAY).days
        assert row.short == pytest.approx(short[number], abs=0.015)
        low, middle, high = np.percentile(balances[:, number], [10, 50, 90])
        spread = max(high - low, 0.5)
        assert (row.p10, row.p50, row.p90) == pytest.approx((low, middle, high), abs=max(0.1, 0.05 * spread))
    if found.outlook.runs_out:
        number = (found.outlook.runs_out - TODAY).days
        assert not number or short[number - 1] <= 0.1 + 0.015
        assert short[number] >= 0.1 - 0.015
        low = balances[:, number : number + 61].min(axis=1)
        assert np.mean(low + found.outlook.order_g >= 0) == pytest.approx(0.9, abs=0.015)


@given(st.floats(0.5, 200), st.floats(1, 30), st.sampled_from([0.3, 0.7, 1.1, 1.5, 2.0, 4.0, 30.0]))
def test_a_habit_alone_is_a_gamma_distribution(on_hand, weekly, scatter):
    """scipy.stats.gamma: what is used until a day has the shape of a day's times the days."""
    sd = scatter * weekly
    found = future(on_hand=on_hand, habit=Habit(weekly, sd))
    for row in found.levels:
        days = (row.date - TODAY).days + 1
        used = stats.gamma(days * weekly**2 / (7 * sd**2), scale=sd**2 / weekly)
        assert row.short == pytest.approx(used.sf(on_hand), abs=0.01)
        reach = used.ppf(0.9) - used.ppf(0.1)
        assert row.p50 == pytest.approx(on_hand - used.median(), abs=0.05 * reach + 0.3 + 5e-4 * used.ppf(0.998))


@given(st.floats(5, 60), st.floats(0.05, 1.5))
@settings(max_examples=25, deadline=None)
def test_a_plan_alone_is_a_lognormal_distribution(grams, sigma):
    found = future(on_hand=30.0, demands=[Dated(day(10), grams, sigma)], service=0.5)
    used = stats.lognorm(sigma, scale=grams)
    assert [row.short for row in found.levels[:2]] == [0, 0]
    assert found.levels[2].short == pytest.approx(used.sf(30.0), abs=0.01)
    if used.sf(30.0) > 0.51:
        assert found.outlook.runs_out == day(10)
        assert found.outlook.order_g == pytest.approx(grams - 30, abs=0.02 * grams)


def test_what_is_certain_is_told_exactly():
    found = future(on_hand=10.0, demands=[Dated(day(9), 25.0)], receipts=[Dated(day(7), 5)], lead_days=4.2)
    assert found.outlook.runs_out == day(9)
    assert (found.outlook.order_by, found.outlook.late) == (day(4), False)
    assert found.outlook.order_g == 10
    assert [row.short for row in found.levels[:3]] == [0, 0, 1]
    assert found.levels[1].p10 == found.levels[1].p90 == 15


def test_a_parcel_that_comes_on_the_morning_of_the_day_is_in_time():
    assert future(on_hand=5.0, demands=[Dated(day(8), 8.0)], receipts=[Dated(day(8), 3)]).outlook.runs_out is None
    late = future(on_hand=5.0, demands=[Dated(day(8), 8.0)], receipts=[Dated(day(9), 3)])
    assert (late.outlook.runs_out, late.outlook.order_g) == (day(8), 3)


def test_lead_times_that_scatter_are_ordered_earlier():
    assert lead_time(6, 0, 0.9) == 6
    assert lead_time(6.1, 0, 0.9) == 7
    shape = 9.0
    assert lead_time(6, 2, 0.9) == math.ceil(stats.gamma(shape, scale=6 / shape).ppf(0.9))
    assert lead_time(0, 3, 0.9) == 0
    found = future(on_hand=1.0, demands=[Dated(day(5), 9.0)], lead_days=9)
    assert (found.outlook.order_by, found.outlook.late) == (TODAY, True)


@settings(max_examples=15, deadline=None)
@given(st.floats(0, 80), st.floats(1, 20), st.integers(0, 60), st.floats(0.1, 0.7), st.floats(0.5, 0.98))
def test_laws(on_hand, weekly, when, sigma, service):
    told = {"habit": Habit(weekly, weekly / 2), "demands": [Dated(day(when), 20, sigma)], "service": service}
    found, more = future(on_hand=on_hand, **told), future(on_hand=on_hand + 10, **told)
    odds = [row.short for row in found.levels]
    assert all(one <= two + 1e-9 for one, two in itertools.pairwise(odds)), "what was short stays short"
    assert all(a.short >= b.short - 0.005 for a, b in zip(found.levels, more.levels, strict=True))
    assert all(row.p10 <= row.p50 <= row.p90 for row in found.levels)
    assert found == future(on_hand=on_hand, **told), "the same again"
    if found.outlook.runs_out and more.outlook.runs_out:
        assert found.outlook.runs_out <= more.outlook.runs_out


def test_fibres_do_not_hear_of_each_other():
    together = futures(TODAY, [*CASES.values(), Fibre(5.0)])
    for fibre, found in zip(CASES.values(), together, strict=False):
        alone = futures(TODAY, [fibre])[0]
        assert found.outlook.runs_out == alone.outlook.runs_out
        assert found.outlook.order_g == pytest.approx(alone.outlook.order_g, rel=1e-6, abs=1e-6)
    assert together[-1].outlook.runs_out is None


def test_the_answer_of_the_command_line():
    answer = VERBS["forecast"][1](
        {
            "today": "2026-11-30",
            "horizon_days": 14,
            "fibres": [
                {
                    "id": "chestnut",
                    "on_hand_g": 40,
                    "habit": {"weekly_g": 0, "weekly_sd_g": 2},
                    "demands": [{"date": "2026-12-10", "grams": 60, "sigma": 0}],
                    "lead_days": 6,
                    "lead_sd_days": 2,
                    "packs": [{"grams": 25, "price": 2.9}],
                }
            ],
        }
    )["fibres"][0]
    assert (answer["runs_out"], answer["order_by"], answer["late"]) == ("2026-12-10", "2026-12-01", False)
    assert (answer["order_g"], answer["cost"]) == (20, 2.9)
    assert [row["short"] for row in answer["odds"]] == [0, 0, 1]
