"""Packs, forecast, allocation."""

import datetime as dt
import itertools
import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import optimize

from wembit.core.stock.allocation import Demand, FreeLot, allocate
from wembit.core.stock.forecast import Dated, Fibre, Outlook, balances, futures
from wembit.core.stock.packs import Chosen, Priced, cheapest

TODAY = dt.date(2026, 11, 25)
PACKS = [(25.0, 2.6), (50.0, 4.9), (100.0, 9.0)]


def forecast(today, on_hand, demands, receipts, *, lead_days, packs, horizon_days=180, cover_days=60):
    """The outlook of one fibre."""
    fibre = Fibre(on_hand, demands, receipts, lead_days=lead_days, packs=packs, cover_days=cover_days)
    return futures(today, [fibre], horizon_days=horizon_days)[0].outlook


def day(ahead):
    return TODAY + dt.timedelta(ahead)


def test_the_cheapest_packs_hold_what_is_asked():
    found = cheapest(130, PACKS)
    assert found.packs == ((100.0, 1), (50.0, 1))
    assert found.cost == 13.9
    assert found.grams == 150


def test_ties_take_the_least_surplus_then_the_fewest_packs():
    assert cheapest(30, [(50, 5), (40, 5)]).packs == ((40.0, 1),)
    assert cheapest(100, [(50, 5), (100, 10)]).packs == ((100.0, 1),)
    assert cheapest(10, [(50, 0), (20, 0)]).packs == ((20.0, 1),)


@given(
    st.floats(0.5, 400),
    st.lists(
        st.tuples(
            st.sampled_from([10, 25, 50, 90]),
            st.integers(100, 2000),
            st.lists(st.tuples(st.integers(2, 6), st.floats(0.5, 0.99)), max_size=2),
        ),
        min_size=1,
        max_size=2,
        unique_by=lambda pack: pack[0],
    ),
)
def test_price_breaks_are_as_cheap_as_trying_every_number_finds(grams, packs):
    offers = [
        Priced(size, cents / 100, tuple((least, round(cents * share) / 100) for least, share in sorted(breaks)))
        for size, cents, breaks in packs
    ]

    def price(offer, count):
        return min([offer.price, *(lower for least, lower in offer.breaks if count >= least)])

    ways = itertools.product(*(range(math.ceil(grams / offer.grams) + 7) for offer in offers))
    best = min(
        round(100 * sum(count * price(offer, count) for offer, count in zip(offers, way, strict=True)))
        for way in ways
        if sum(count * offer.grams for offer, count in zip(offers, way, strict=True)) >= grams - 0.005
    )
    found = cheapest(grams, offers)
    assert found.grams >= grams - 0.006
    counted = dict(found.packs)
    cost = sum(counted.get(offer.grams, 0) * price(offer, counted.get(offer.grams, 0)) for offer in offers)
    assert round(100 * cost) == best
    assert found.cost == pytest.approx(cost, abs=0.005)


def test_more_can_cost_less():
    """Nine packs at 4.00 are dearer than ten at 3.50."""
    found = cheapest(450, [Priced(50, 4.0, ((10, 3.5),))])
    assert (found.packs, found.cost) == (((50.0, 10),), 35.0)
    assert cheapest(400, [Priced(50, 4.0, ((10, 3.5),))]).packs == ((50.0, 8),)


def test_nothing_needs_no_packs():
    assert cheapest(0, PACKS).packs == ()
    assert cheapest(0.001, PACKS).cost == 0


@settings(max_examples=60)
@given(
    st.integers(1, 900),
    st.lists(
        st.tuples(st.integers(1, 60), st.integers(0, 400)), min_size=1, max_size=4, unique_by=lambda pack: pack[0]
    ),
)
def test_packs_are_as_cheap_as_integer_programming_finds(grams, packs):
    sizes, prices = (np.array(each, dtype=float) for each in zip(*packs, strict=True))
    bound = optimize.milp(
        prices / 100,
        integrality=np.ones(len(packs)),
        constraints=optimize.LinearConstraint(sizes, grams),
        bounds=optimize.Bounds(0, 2000),
    )
    found = cheapest(grams, [(size, price / 100) for size, price in packs])
    assert found.cost == pytest.approx(bound.fun, abs=0.005)
    assert found.grams >= grams
    assert found.grams == pytest.approx(sum(size * count for size, count in found.packs))


def test_a_large_amount_is_filled_with_the_best_pack_first():
    found = cheapest(1_000_000, [(37.01, 3.0), (50.0, 4.0), (99.99, 8.2)])
    assert (found.packs, found.grams, found.cost) == (((50.0, 20_000),), 1_000_000, 80_000), (
        "8 cents a gram, none left over"
    )


def test_the_basic_record_of_material_requirements_planning():
    """Vollmann, Berry & Whybark, Manufacturing Planning and Control Systems, the basic MRP record (from memory): 4 on hand, 50
    arriving in period 1, requirements of 10, 40 and 10 in periods 2, 4 and 5, lots of 50, a lead time of one period: available
    54, 44, 44, 4 and 44, and 50 released in period 4.
    """
    period = [day(7 * number) for number in range(6)]
    wanted = [Dated(period[2], 10), Dated(period[4], 40), Dated(period[5], 10)]
    receipts = [Dated(period[1], 50)]
    level = {step.date: step.grams for step in balances(TODAY, 4, wanted, receipts)}
    assert [level[period[number]] for number in (1, 2, 4, 5)] == [54, 44, 4, -6]
    found = forecast(TODAY, 4, wanted, receipts, lead_days=7, packs=[(50, 1.0)], cover_days=0)
    assert (found.order_by, found.runs_out) == (period[4], period[5])
    assert found.chosen.packs == ((50.0, 1),)
    assert level[period[5]] + found.chosen.grams == 44


def test_a_fibre_runs_out_on_the_day_its_project_starts():
    found = forecast(TODAY, 10, [Dated(day(14), 31.2)], [], lead_days=5, packs=PACKS)
    assert (found.runs_out, found.order_by, found.late) == (day(14), day(9), False)
    assert found.order_g == pytest.approx(21.2)
    assert found.chosen.packs == ((25.0, 1),)


def test_exactly_nothing_left_is_not_short():
    assert forecast(TODAY, 31.2, [Dated(day(14), 31.2)], [], lead_days=5, packs=PACKS).runs_out is None
    thirds = [Dated(day(n), 0.1) for n in range(3)]
    assert forecast(TODAY, 0.3, thirds, [], lead_days=5, packs=PACKS).runs_out is None


NOTHING = Chosen((), 0.0, 0.0)


def test_what_lasts_orders_nothing():
    assert forecast(TODAY, 50, [Dated(day(14), 31.2)], [], lead_days=5, packs=PACKS) == Outlook(
        None, None, False, 0.0, NOTHING
    )


def test_what_nobody_is_known_to_sell_is_ordered_by_a_day_all_the_same():
    found = forecast(TODAY, 10, [Dated(day(14), 31.2)], [], lead_days=5, packs=[])
    assert (found.order_by, found.late, found.chosen) == (day(9), False, NOTHING)
    assert found.order_g == pytest.approx(21.2)


def test_the_last_day_looked_at_counts_and_the_one_after_it_does_not():
    for days, runs_out in ((180, day(180)), (181, None)):
        assert forecast(TODAY, 0, [Dated(day(days), 9)], [], lead_days=1, packs=PACKS).runs_out == runs_out
    assert forecast(TODAY, 0, [Dated(day(9), 9)], [], lead_days=1, packs=PACKS, horizon_days=8).runs_out is None


def test_a_parcel_of_the_morning_serves_the_day():
    assert forecast(TODAY, 0, [Dated(day(9), 20)], [Dated(day(9), 20)], lead_days=5, packs=PACKS).runs_out is None
    late = forecast(TODAY, 0, [Dated(day(9), 20)], [Dated(day(10), 20)], lead_days=5, packs=PACKS)
    assert late.runs_out == day(9)
    assert late.order_g == 20


def test_what_is_late_is_ordered_today():
    found = forecast(TODAY, 0, [Dated(day(2), 5)], [], lead_days=3, packs=PACKS)
    assert found.late
    assert found.order_by == TODAY
    assert not forecast(TODAY, 0, [Dated(day(3), 5)], [], lead_days=2.5, packs=PACKS).late


def test_the_order_covers_what_follows_and_no_more():
    demands = [Dated(day(5), 10), Dated(day(40), 20), Dated(day(66), 40)]
    assert forecast(TODAY, 0, demands, [], lead_days=1, packs=PACKS).order_g == 30  # 60 days from day 5 on
    assert forecast(TODAY, 0, demands, [], lead_days=1, packs=PACKS, cover_days=61).order_g == 70
    assert forecast(TODAY, 0, [Dated(day(300), 9)], [], lead_days=1, packs=PACKS).runs_out is None


def test_what_was_due_earlier_counts_today():
    found = forecast(TODAY, 3, [Dated(day(-20), 5)], [Dated(day(-3), 1)], lead_days=1, packs=PACKS)
    assert found.runs_out == TODAY
    assert found.order_g == 1


@given(
    st.floats(0, 100),
    st.lists(st.tuples(st.integers(0, 100), st.floats(0, 50)), max_size=6),
    st.lists(st.tuples(st.integers(0, 100), st.floats(0, 50)), max_size=4),
)
def test_ordering_what_is_asked_makes_the_shortage_go_away(on_hand, demands, receipts):
    demands = [Dated(day(n), g) for n, g in demands]
    receipts = [Dated(day(n), g) for n, g in receipts]
    found = forecast(TODAY, on_hand, demands, receipts, lead_days=0, packs=PACKS, cover_days=200)
    if found.runs_out:
        mended = [*receipts, Dated(found.runs_out, found.chosen.grams + 0.01)]
        assert forecast(TODAY, on_hand, demands, mended, lead_days=0, packs=PACKS, cover_days=200).runs_out is None


def test_an_earlier_due_date_is_served_first():
    lots = [FreeLot("a", "moss", 5)]
    found = allocate(lots, [Demand("late", day(9), "moss", 4), Demand("early", day(2), "moss", 3)])
    assert {reservation.demand: reservation.grams for reservation in found.reservations} == {"early": 3, "late": 2}
    assert found.short == {"late": 2}


def test_one_dye_lot_is_kept_together_and_an_opened_bag_goes_first():
    lots = [FreeLot("a", "moss", 5, "1"), FreeLot("b", "moss", 5, "2"), FreeLot("c", "moss", 9, "3")]
    assert {r.lot for r in allocate(lots, [Demand("d", day(1), "moss", 8)]).reservations} == {"c"}
    lots = [FreeLot("a", "moss", 50, "1"), FreeLot("b", "moss", 50, "2", opened=True)]
    assert {r.lot for r in allocate(lots, [Demand("d", day(1), "moss", 8)]).reservations} == {"b"}


LOTS = st.lists(st.floats(0, 60).map(lambda g: round(g, 2)), min_size=0, max_size=6)


@given(LOTS, st.lists(st.tuples(st.integers(0, 30), st.floats(0.1, 60).map(lambda g: round(g, 2))), max_size=5))
def test_no_gram_is_promised_twice_and_none_is_left_while_someone_is_short(sizes, wanted):
    lots = [FreeLot(n, "f", grams, str(n % 3)) for n, grams in enumerate(sizes)]
    demands = [Demand(n, day(due), "f", grams) for n, (due, grams) in enumerate(wanted)]
    found = allocate(lots, demands)
    for lot in lots:
        assert sum(r.grams for r in found.reservations if r.lot == lot.id) <= lot.grams + 1e-6
    for demand in demands:
        got = sum(r.grams for r in found.reservations if r.demand == demand.id)
        assert got + found.short.get(demand.id, 0) == pytest.approx(demand.grams, abs=0.011)
    if found.short:
        assert sum(r.grams for r in found.reservations) == pytest.approx(sum(sizes), abs=0.011)
