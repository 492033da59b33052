"""Legs that carry, bare ends for their holes, feet from one wire, and what makes a figure stand that tips."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Point, Polygon

from wembit.core.craft.armature import Make, Wire
from wembit.core.pose.balance import Standing
from wembit.core.pose.carrying import (
    FootWire,
    Leg,
    bare_end_mm,
    carries_g,
    feet,
    legs,
    needed_gauge_mm,
    offers,
    sold_gauge_mm,
)


def test_the_critical_load_is_eulers():
    """A worked example: steel wire of 1 mm, 100 mm long, held at one end: π² · 200 000 · 0.04909 ÷ 200² = 2.42 N, by eight."""
    inertia = math.pi / 64
    assert inertia == pytest.approx(0.04909, abs=1e-5)
    newtons = math.pi**2 * 200_000 * inertia / 200**2
    assert newtons == pytest.approx(2.42, abs=0.01)
    assert carries_g(1.0, 100, "steel") == pytest.approx(newtons / 8 / 9.80665 * 1000)


@given(st.floats(0.3, 4), st.floats(5, 300), st.sampled_from(["", "copper", "steel", "brass", "nothing known"]))
def test_the_gauge_for_a_load_carries_just_that(gauge, length, metal):
    load = carries_g(gauge, length, metal)
    assert needed_gauge_mm(load, length, metal) == pytest.approx(gauge)
    assert carries_g(gauge * 2, length, metal) == pytest.approx(16 * load), "with the fourth power of the gauge"
    assert carries_g(gauge, length * 2, metal) == pytest.approx(load / 4)


def test_twice_as_large_the_wire_has_to_be_more_than_twice_as_thick():
    """Load × 8, length × 2: the gauge × 32^¼ = 2.38"""
    assert needed_gauge_mm(80, 100) / needed_gauge_mm(10, 50) == pytest.approx(32**0.25)
    leg = Leg("leg", Wire("leg", 2, 88, 1.5), 7.2)
    assert leg.carries
    grown = Leg("leg", Wire("leg", 2, 88 * leg.times * 1.01, 1.5), 7.2 * (leg.times * 1.01) ** 3)
    assert not grown.carries
    assert grown.gauge_mm > 1.5


def test_gauges_are_those_that_are_sold():
    assert [sold_gauge_mm(mm) for mm in (0.2, 0.61, 1.0, 1.21, 9)] == [0.3, 0.8, 1.0, 1.5, 4.0]


def test_a_bare_end_is_as_long_as_its_hole_allows():
    # about 13 mm for a join  # common practice
    assert bare_end_mm(1.0, 40) == 13
    assert bare_end_mm(2.0, 40) == 16, "a thick wire goes in deeper"
    assert bare_end_mm(1.0, 12) == pytest.approx(8.4), "not through a thin host"
    assert bare_end_mm(1.0, 3) == 5


def test_legs_share_the_load_and_formers_carry_nothing():
    wires = {
        "leg": ("leg", Wire("leg", 2, 80, 1.0, make=Make("steel"))), "hind": ("leg", Wire("hind", 2, 80, 0.3)),
        "neck": ("neck", Wire("neck", 1, 80, 1.0)), "shape": ("leg", Wire("shape", 2, 80, 1.0, former=True)),
    }  # fmt: skip
    found = legs(wires, 40)
    assert [(leg.name, leg.load_g) for leg in found] == [("leg", 10), ("hind", 10)]
    assert [leg.carries for leg in found] == [True, False]
    assert legs({}, 40) == []


def test_a_foot_of_three_toes_and_one_behind_is_one_wire():
    """Each toe bent double: 2 × (3 × 20 + 14) = 148 mm a foot  # common practice"""
    toes = [
        ("leg", "front toe", Wire("front toe", 6, 20, 1.0, 0, doubled=True)),
        ("leg", "back toe", Wire("back toe", 2, 14, 1.0, 0, doubled=True)),
    ]
    assert feet({"leg": 2}, toes) == [FootWire("leg", 2, 148, 1.0, (20, 20, 20, 14), ("front toe", "back toe"))]
    assert feet({"leg": 2}, [("leg", "toe", Wire("toe", 2, 20, 1.0, 0, doubled=True))]) == [], "one toe is no foot"
    thin = ("leg", "spur", Wire("spur", 2, 14, 0.6, 0, doubled=True))
    assert feet({"leg": 2}, [toes[0], thin]) == [], "two gauges are two wires"


SPAN = ((-20.0, -15.0), (20.0, -15.0), (20.0, 15.0), (-20.0, 15.0))


def test_what_stands_needs_nothing_and_what_tips_gets_three_offers_that_each_work():
    assert offers(Standing((0, 0), 15, "", SPAN), 30, 60) == []
    tips = Standing((-26.0, 0.0), -6.0, "backward", SPAN)
    found = {offer.what: offer.amount for offer in offers(tips, 30, 60)}
    assert found["feet"] == pytest.approx(8), "two millimetres inside"
    heavier = 30 + found["weight"]
    centre = (-26.0 * 30 + 0.0 * found["weight"]) / heavier
    assert Polygon(SPAN).contains(Point(centre, 0))
    assert centre == pytest.approx(-18, abs=0.01)
    assert found["lean"] == pytest.approx(math.degrees(math.atan2(8, 60)))


@given(st.floats(-200, -20.5), st.floats(1, 500), st.floats(5, 300))
def test_the_weight_that_is_offered_always_brings_it_inside(x, grams, height):
    tips = Standing((x, 0.0), x + 20.0, "backward", SPAN)
    for offer in offers(tips, grams, height):
        assert offer.amount > 0
        if offer.what == "weight":
            assert (x * grams) / (grams + offer.amount) >= -18 - 1e-6
