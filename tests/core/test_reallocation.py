"""Promises stay where they are as far as they can, and give way to an earlier need."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.stock.allocation import LEAST_G, Demand, FreeLot, allocate, reallocate

MARCH = [dt.date(2027, 3, day) for day in range(1, 8)]
GRAMS = st.integers(0, 4000).map(lambda n: n / 100)


def by(found):
    return {(reservation.demand, reservation.lot): reservation.grams for reservation in found.reservations}


@st.composite
def shelves(draw):
    lots = [FreeLot(f"bag{n}", "olive", draw(GRAMS), f"dye{n % 2}") for n in range(draw(st.integers(1, 4)))]
    demands = [
        Demand(f"otter{n}", draw(st.sampled_from(MARCH)), "olive", draw(GRAMS)) for n in range(draw(st.integers(1, 4)))
    ]
    held = {
        (demand.id, lot.id): grams
        for demand in demands
        for lot in lots
        if (grams := draw(st.sampled_from([0, 0, 3.0, 7.25])))
    }
    return lots, demands, held


@given(shelves())
def test_nobody_is_promised_more_than_the_bag_holds_or_than_is_asked(shelf):
    lots, demands, held = shelf
    found = by(reallocate(lots, demands, held))
    for lot in lots:
        assert sum(grams for (_, bag), grams in found.items() if bag == lot.id) <= lot.grams + 1e-6
    for demand in demands:
        given_ = sum(grams for (whose, _), grams in found.items() if whose == demand.id)
        assert given_ <= demand.grams + 1e-6
    assert all(grams >= LEAST_G for grams in found.values())


@given(shelves())
def test_what_is_missing_is_missing_because_the_shelf_is_empty(shelf):
    lots, demands, held = shelf
    found = reallocate(lots, demands, held)
    rest = sum(lot.grams for lot in lots) - sum(reservation.grams for reservation in found.reservations)
    if found.short:
        assert rest < len(lots) * LEAST_G + LEAST_G * len(demands) + 1e-6


@given(shelves())
def test_no_earlier_need_is_short_while_a_later_one_holds_wool(shelf):
    lots, demands, held = shelf
    found = reallocate(lots, demands, held)
    holding = {reservation.demand for reservation in found.reservations}
    for short in (demand for demand in demands if demand.id in found.short):
        assert not [demand for demand in demands if demand.due > short.due and demand.id in holding]


@given(shelves())
def test_a_second_time_nothing_moves(shelf):
    lots, demands, held = shelf
    once = by(reallocate(lots, demands, held))
    assert by(reallocate(lots, demands, once)) == pytest.approx(once)


@given(shelves())
def test_without_promises_it_is_the_allocation(shelf):
    lots, demands, _ = shelf
    fresh = {key: grams for key, grams in by(allocate(lots, demands)).items() if grams >= LEAST_G}
    assert by(reallocate(lots, demands, {})) == pytest.approx(fresh)


def test_a_promise_stays_in_its_bag_though_another_would_fit_better():
    lots = [FreeLot("whole", "olive", 50.0), FreeLot("rest", "olive", 10.0)]
    otter = Demand("otter", MARCH[0], "olive", 7.0)
    assert by(allocate(lots, [otter])) == {("otter", "rest"): 7.0}
    assert by(reallocate(lots, [otter], {("otter", "whole"): 7.0})) == {("otter", "whole"): 7.0}


def test_what_grew_takes_more_beside_what_it_has_and_what_shrank_gives_back():
    lots = [FreeLot("bag", "olive", 20.0)]
    otter = Demand("otter", MARCH[0], "olive", 12.0)
    assert by(reallocate(lots, [otter], {("otter", "bag"): 5.0})) == {("otter", "bag"): 12.0}
    assert by(reallocate(lots, [otter], {("otter", "bag"): 18.0})) == {("otter", "bag"): 12.0}


def test_an_earlier_need_takes_the_wool_of_a_later_one_and_an_equal_one_does_not():
    lots = [FreeLot("bag", "olive", 10.0)]
    early, late = Demand("snail", MARCH[0], "olive", 8.0), Demand("hare", MARCH[3], "olive", 8.0)
    found = reallocate(lots, [late, early], {("hare", "bag"): 8.0})
    assert by(found) == {("snail", "bag"): 8.0, ("hare", "bag"): 2.0} and found.short == {"hare": 6.0}
    same = Demand("snail", MARCH[3], "olive", 8.0)
    assert by(reallocate(lots, [late, same], {("hare", "bag"): 8.0}))["hare", "bag"] == 8.0


def test_a_promise_of_another_wool_is_dropped():
    lots = [FreeLot("bag", "pine", 10.0), FreeLot("other", "olive", 10.0)]
    otter = Demand("otter", MARCH[0], "olive", 4.0)
    assert by(reallocate(lots, [otter], {("otter", "bag"): 4.0})) == {("otter", "other"): 4.0}


@st.composite
def pinned_shelves(draw):
    lots, demands, held = draw(shelves())
    pins = {
        (draw(st.sampled_from(demands)).id, draw(st.sampled_from(lots)).id): draw(st.sampled_from([0.5, 2.0, 9.0]))
        for _ in range(draw(st.integers(1, 3)))
    }
    return lots, demands, held, pins


@given(pinned_shelves())
def test_what_is_pinned_stays_as_far_as_bag_and_need_reach_whatever_is_due_before(shelf):
    lots, demands, held, pins = shelf
    found = by(reallocate(lots, demands, held, pins))
    room = {lot.id: lot.grams for lot in lots}
    for demand in sorted(demands, key=lambda each: each.turn):  # of two pins in one bag too small for both
        left = demand.grams
        for lot in lots:
            least = round(min(pins.get((demand.id, lot.id), 0.0), left, room[lot.id]), 3)
            if least >= LEAST_G:
                assert found.get((demand.id, lot.id), 0.0) >= least - 1e-6
                left, room[lot.id] = left - least, room[lot.id] - least
    for lot in lots:
        assert sum(grams for (_, bag), grams in found.items() if bag == lot.id) <= lot.grams + 1e-6
    for demand in demands:
        assert sum(grams for (whose, _), grams in found.items() if whose == demand.id) <= demand.grams + 1e-6


@given(pinned_shelves())
def test_a_second_time_nothing_moves_beside_pins(shelf):
    lots, demands, held, pins = shelf
    once = by(reallocate(lots, demands, held, pins))
    assert by(reallocate(lots, demands, once, pins)) == pytest.approx(once, abs=2e-3)
