"""Reservations: exact by scipy's integer programming where there is little, no more mixed than best fit where there is
much.
"""

import datetime as dt

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from wembit.core.stock.allocation import Demand, FreeLot, allocate
from wembit.core.stock.best_fit import best_fit
from wembit.core.stock.least_mixed import Bag, Wish, judged, least_mixed
from wembit.core.verbs import VERBS

G = 1_000_000
MARCH = [dt.date(2027, 3, day) for day in range(1, 29)]
grams = st.integers(0, 24).map(lambda n: n * G // 2)
bags_of = st.lists(st.builds(Bag, grams, st.integers(0, 2), st.booleans()), min_size=1, max_size=6)


@st.composite
def cases(draw, most_bags=6, most_wishes=5):
    bags = draw(st.lists(st.builds(Bag, grams, st.integers(0, 3), st.booleans()), min_size=1, max_size=most_bags))
    there, wishes = sum(bag.holds for bag in bags), []
    for _ in range(draw(st.integers(1, most_wishes))):
        gets = min(draw(grams), there)
        there -= gets
        wishes.append(Wish(gets, draw(st.booleans())))
    return bags, wishes


def is_sound(bags, wishes, grid):
    rows = np.array(grid, dtype=object).reshape(len(wishes), len(bags))
    assert all(amount >= 0 for row in grid for amount in row)
    assert [sum(row) for row in grid] == [wish.gets for wish in wishes]
    assert all(sum(rows[:, n]) <= bag.holds for n, bag in enumerate(bags))


def by_milp(bags, wishes):
    """The same aims one after the other by HiGHS, in grams: x amounts, u used, d dye lot of a wish, m mixed, f c b how it is
    left.
    """
    lots, asks, dyes = len(bags), len(wishes), 4
    holds = np.array([bag.holds / G for bag in bags])
    n_x, n_d = asks * lots, asks * dyes
    start = np.cumsum([0, n_x, lots, n_d, asks, lots, lots, lots])
    size = int(start[-1])
    rows, low, high = [], [], []

    def add(terms, least, most):
        row = np.zeros(size)
        for at, factor in terms:
            row[at] += factor
        rows.append(row)
        low.append(least)
        high.append(most)

    def x(d, n):
        return d * lots + n

    used, dye, mixed, full, more, crumb = (int(at) for at in start[1:7])
    for d, wish in enumerate(wishes):
        add([(x(d, n), 1) for n in range(lots)], wish.gets / G, wish.gets / G)
        for n, bag in enumerate(bags):
            add([(x(d, n), 1), (dye + d * dyes + bag.dye, -holds[n])], -np.inf, 0)
        if wish.visible:
            add([(dye + d * dyes + k, 1) for k in range(dyes)] + [(mixed + d, -dyes)], -np.inf, 1)
    for n in range(lots):
        taken = [(x(d, n), 1) for d in range(asks)]
        add([*taken, (used + n, -holds[n])], -np.inf, 0)
        add([(full + n, 1), (more + n, 1), (crumb + n, 1)], 1, 1)
        add([*taken, (full + n, -holds[n])], 0, np.inf)  # full: all of it is taken
        add([*taken, (more + n, 2)], -np.inf, holds[n])  # more: 2 g and more are left
    whole = np.ones(size)
    whole[:n_x] = 0
    aims = [
        [(mixed + d, 1) for d in range(asks)],
        [(used + n, 1) for n, bag in enumerate(bags) if not bag.opened],
        [(used + n, 1) for n in range(lots)],
        [(crumb + n, 1) for n in range(lots)],
    ]
    found = []
    for aim in aims:
        cost = np.zeros(size)
        for at, factor in aim:
            cost[at] += factor
        best = milp(
            cost,
            integrality=whole,
            bounds=Bounds(0, np.where(whole == 1, 1, np.inf)),
            constraints=LinearConstraint(np.array(rows), low, high),
            options={"mip_rel_gap": 0},
        )
        found.append(round(best.fun))
        add(aim, -np.inf, found[-1])
    return tuple(found)


@settings(max_examples=25, deadline=None)
@given(cases())
def test_nothing_is_better_by_scipy_s_integer_programming(case):
    bags, wishes = case
    grid = least_mixed(bags, wishes)
    is_sound(bags, wishes, grid)
    assert judged(bags, wishes, grid) == by_milp(bags, wishes)


def plain_best_fit(bags, wishes):
    """By due date, each the smallest dye lot that holds it; how many visible ones are mixed."""
    rooms, mixed = {}, 0
    for bag in bags:
        rooms[bag.dye] = rooms.get(bag.dye, 0) + bag.holds
    for wish in wishes:
        fits = [dye for dye, room in rooms.items() if room >= wish.gets]
        if fits:
            rooms[min(fits, key=lambda dye: rooms[dye])] -= wish.gets
            continue
        missing = wish.gets
        mixed += wish.visible
        for dye in sorted(rooms, key=lambda dye: -rooms[dye]):
            part = min(missing, rooms[dye])
            rooms[dye] -= part
            missing -= part
    return mixed


@settings(max_examples=80)
@given(cases(30, 20))
def test_many_are_no_more_mixed_than_by_plain_best_fit(case):
    bags, wishes = case
    grid = best_fit(bags, wishes)
    is_sound(bags, wishes, grid)
    assert judged(bags, wishes, grid)[0] <= plain_best_fit(bags, wishes)


def test_a_worked_case():
    """The ear takes the dye lot that holds it, the hidden core what is left; the opened bag goes first."""
    lots = [FreeLot("a", "moss", 5, "1"), FreeLot("b", "moss", 4, "2"), FreeLot("c", "moss", 3, "2", opened=True)]
    demands = [Demand("core", MARCH[1], "moss", 5, visible=False), Demand("ear", MARCH[2], "moss", 6)]
    found = allocate(lots, demands)
    by_lot = {(each.demand, each.lot): each.grams for each in found.reservations}
    assert {lot for demand, lot in by_lot if demand == "ear"} == {"b", "c"}
    assert by_lot["core", "a"] == pytest.approx(5)


def test_the_answer_of_the_command_line():
    answer = VERBS["allocate"][1](
        {
            "lots": [
                {"id": "m1", "fibre": "moss", "grams": 4.5, "dye_lot": "30"},
                {"id": "m2", "fibre": "moss", "grams": 3, "opened": True},
            ],
            "demands": [
                {"id": "late", "due": "2027-03-09", "fibre": "moss", "grams": 6},
                {"id": "early", "due": "2027-03-02", "fibre": "moss", "grams": 2.5},
                {"id": "other", "due": "2027-03-02", "fibre": "rust", "grams": 1},
            ],
        }
    )
    assert answer == {
        "reservations": [
            {"demand": "early", "lot": "m1", "grams": 2.5},
            {"demand": "late", "lot": "m1", "grams": 2.0},
            {"demand": "late", "lot": "m2", "grams": 3.0},
        ],
        "short": [
            {"demand": "late", "fibre": "moss", "grams": 1.0},
            {"demand": "other", "fibre": "rust", "grams": 1.0},
        ],
    }


def test_the_order_of_the_list_decides_between_equal_dates():
    found = allocate([FreeLot("a", "f", 5)], [Demand("one", MARCH[0], "f", 4), Demand("two", MARCH[0], "f", 4)])
    assert found.short == {"two": 3}


def test_much_is_shared_out_without_a_search():
    chance = np.random.default_rng(1)
    lots = [FreeLot(n, "f", float(chance.integers(1, 9000)) / 100, str(n // 2)) for n in range(300)]
    demands = [Demand(n, MARCH[n % 28], "f", float(chance.integers(1, 4000)) / 100) for n in range(200)]
    found = allocate(lots, demands)
    assert sum(each.grams for each in found.reservations) + sum(found.short.values()) == pytest.approx(
        sum(each.grams for each in demands)
    )
