"""The tides drawn: all to one scale, what is missing under zero and unfilled, long stretches without a change folded."""

import datetime as dt
import re
from dataclasses import dataclass, field
from itertools import pairwise
from types import SimpleNamespace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.stock.forecast import Dated, balances
from wembit.web.restock.tide_chart import HIGHEST, LOWEST, WIDTH, days_of, ruler_of, scales, tide

TODAY = dt.date(2026, 11, 29)


@dataclass
class Line:
    """As much of a tide line as a drawing takes: so much there, so much wanted in so many days."""

    on_hand: float
    wanted: list[tuple[int, float]] = field(default_factory=list)
    unit: str = "g"
    order_by: dt.date | None = None
    levels: tuple = ()

    def __post_init__(self):
        left, out = self.on_hand, None
        for days, grams in self.wanted:
            left -= grams
            out = out or (TODAY + dt.timedelta(days) if left < 0 else None)
        self.item = SimpleNamespace(on_hand=self.on_hand, unit=self.unit)
        self.outlook = SimpleNamespace(runs_out=out)

    def steps(self, today):
        demands = [Dated(TODAY + dt.timedelta(days), grams) for days, grams in self.wanted]
        return balances(today, self.on_hand, demands, [])


def drawn(*lines):
    days = days_of(TODAY, [TODAY + dt.timedelta(days) for line in lines for days, _ in line.wanted])
    tides = [tide(line, scales(lines, days), days) for line in lines]
    return SimpleNamespace(tides=tides, weeks=days.weeks, folds=days.folds)


def first_fall(tide) -> float:
    """How far the line falls at its first step, in px."""
    start, after = re.match(r"M0 ([\d.]+)H[\d.]+V([\d.]+)", tide.edge).groups()
    return float(after) - float(start)


grams = st.floats(1, 500)


@given(one=grams, two=grams)
def test_a_gram_is_as_high_in_every_tide(one, two):
    laid = drawn(Line(one / 2, [(9, one)]), Line(two / 2, [(9, two)]))
    falls = [first_fall(tide) for tide in laid.tides]
    assert max(tide.height for tide in laid.tides) == pytest.approx(HIGHEST)
    if min(tide.height for tide in laid.tides) > LOWEST:
        assert falls[0] / falls[1] == pytest.approx(one / two, rel=0.02)


def test_what_is_missing_lies_under_zero_and_is_no_water():
    short, enough = drawn(Line(10, [(5, 15)]), Line(400, [(5, 20)])).tides
    assert short.owed
    assert short.zero_y == pytest.approx(HIGHEST * 10 / 15, abs=0.1)
    heights = [float(y) for y in re.findall(r"(?:V|M0 )([\d.]+)", short.water)]
    assert max(heights) == short.zero_y, "the water ends at zero"
    assert min(float(y) for y in re.findall(r"(?:V|M0 )([\d.]+)", short.owed)) == short.zero_y
    assert enough.owed == ""
    assert enough.torn, "400 g are not drawn to the scale of 15"
    assert not short.torn


def test_where_nothing_is_short_all_of_it_fits():
    laid = drawn(Line(100, [(3, 5)]), Line(20, [(3, 5)]))
    assert [tide.torn for tide in laid.tides] == [False, False]
    assert [round(tide.height) for tide in laid.tides] == [96, 19]


def test_a_change_two_years_away_does_not_press_the_near_ones_together():
    near = Line(10, [(9, 15)])
    alone, both = drawn(near), drawn(near, Line(10, [(720, 15)]))
    assert alone.folds == []
    assert len(both.folds) == 1
    place = [float(re.search(r"H([\d.]+)V", laid.tides[0].edge)[1]) for laid in (alone, both)]
    assert place[1] > 0.4 * place[0]
    assert all(0 <= x <= WIDTH for x, _ in both.weeks)
    xs = sorted([x for x, _ in both.weeks] + [x for x, _, _ in both.folds])
    assert min(b - a for a, b in pairwise(xs)) > 60, "no two dates lie over each other"


@given(scale=st.floats(0.01, 90))
def test_the_ruler_is_a_round_weight_that_can_be_read(scale):
    weight, high = ruler_of(scale)
    assert high == pytest.approx(weight * scale, abs=0.06)
    assert 12 <= high <= 34.1
    assert f"{weight:.0e}"[0] in "125"


def test_where_it_lies_eight_times_in_ten_is_drawn_around_it_in_the_same_steps():
    sure = drawn(Line(50, [(10, 20.0)])).tides[0]
    assert sure.band == ""
    levels = tuple(
        SimpleNamespace(date=TODAY + dt.timedelta(7 * n), p10=p50 - wide, p50=p50, p90=p50 + wide)
        for n, p50, wide in ((0, 50, 0), (1, 50, 0), (2, 30, 6), (3, 30, 6))
    )
    tide = drawn(Line(50, [(10, 20.0)], levels=levels)).tides[0]
    steps = re.findall(r"H([\d.]+)V([\d.]+)", tide.edge)
    assert len(steps) == 1
    here, middle = map(float, steps[0])
    high = float(re.findall(rf"H{steps[0][0]}V([\d.]+)", tide.band)[0])
    assert high < middle, "above the line from the day of the fall on"
    assert tide.band.startswith("M0 0.0"), "and nothing is around what is certain"
    assert here > 0


def test_what_comes_after_the_days_shown_makes_no_tide_higher():
    """Needles of which one goes each week: they run out in four weeks, and go on missing for half a year."""
    weekly = Line(4, [(7 * n, 1.0) for n in range(1, 27)], unit="pc")
    days = days_of(TODAY, [TODAY + dt.timedelta(35)])
    laid = tide(weekly, scales([weekly], days), days)
    assert laid.height == HIGHEST
    assert laid.zero_y == pytest.approx(HIGHEST * 4 / 6, abs=0.1), "of six weeks two are missing"
    across = [float(x) for x in re.findall(r"H([\d.]+)", laid.edge)]
    assert len(across) == len(set(across)) and max(across) == WIDTH
