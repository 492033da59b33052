"""What own blends teach of the mixing law."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import minimize_scalar

from wembit.core.colour.basis import WEIGHTS
from wembit.core.colour.conversions import ratios, xyz_rows_to_lab
from wembit.core.colour.difference import delta_e_2000
from wembit.core.colour.mixture import M, blend
from wembit.core.colour.recovery import curves
from wembit.core.learning.mixing import FAR, LEAST, MOST, SPREAD, TOLD, CardedBlend, learnt_mixing

WOOLS = ["#e8dcc8", "#33261f", "#8a3b2a", "#d9a441", "#35546b", "#6f7d43", "#f4efe6", "#7d4b86"]
CURVES, _ = curves(np.array([ratios(each) for each in WOOLS]))


def carded(m, count, noise=0.0, seed=0):
    """Blends of two or three wools as they come out in a studio that mixes with that M, told with some noise in CIELAB."""
    chance = np.random.default_rng(seed)
    made = []
    for _ in range(count):
        some = CURVES[chance.choice(len(WOOLS), chance.integers(2, 4), replace=False)]
        masses = chance.integers(1, 5, len(some)).astype(float)
        lab = xyz_rows_to_lab(WEIGHTS @ blend(some, masses, m)) + chance.normal(0, noise, 3)
        made.append(CardedBlend(some, masses, tuple(lab)))
    return made


@pytest.mark.parametrize("true", [0.07, 0.25, 0.35])
def test_blends_of_another_law_are_found_out(true):
    known = learnt_mixing(carded(true, 30, noise=0.5))
    assert known.m == pytest.approx(true, rel=0.1)
    assert known.own
    assert known.n == 30
    assert known.own_off < known.book_off / 2


def test_four_blends_are_too_few():
    known = learnt_mixing(carded(0.3, 4))
    assert (known.m, known.own, known.n) == (M, False, 4)
    assert learnt_mixing(carded(0.3, 5)).own


def test_a_studio_as_in_the_book_keeps_the_book():
    found = [learnt_mixing(carded(M, 12, noise=1.0, seed=seed)).m for seed in range(20)]
    assert np.median(found) == pytest.approx(M, rel=0.1)
    assert max(abs(np.log(np.array(found) / M))) < 0.3


@settings(max_examples=30)
@given(st.lists(st.sampled_from(WOOLS), min_size=5, max_size=9), st.integers(0, 99))
def test_it_never_leaves_its_bounds_whatever_is_told(told, seed):
    blends = [
        CardedBlend(each.curves, each.masses, tuple(xyz_rows_to_lab(np.array(ratios(other)))))
        for each, other in zip(carded(0.2, len(told), seed=seed), told, strict=True)
    ]
    assert LEAST <= learnt_mixing(blends).m <= MOST


def test_beyond_the_bounds_it_stays_at_them():
    assert learnt_mixing(carded(0.9, 40)).m == MOST
    assert learnt_mixing(carded(0.02, 40)).m == LEAST


def test_a_colour_told_of_another_wool_moves_little():
    blends = carded(0.22, 20, noise=0.3)
    wrong = CardedBlend(blends[0].curves, blends[0].masses, (50.0, 60.0, -60.0))
    assert learnt_mixing([*blends, wrong]).m == pytest.approx(learnt_mixing(blends).m, rel=0.05)


def test_it_is_the_least_cost_as_scipy_finds_it():
    blends = carded(0.28, 9, noise=1.2, seed=3)

    def cost(log_m):
        off = [
            delta_e_2000(tuple(xyz_rows_to_lab(WEIGHTS @ blend(b.curves, b.masses, np.exp(log_m)))), b.came_out)
            for b in blends
        ]
        return sum(min(each, FAR) ** 2 for each in off) / TOLD**2 + (log_m - np.log(M)) ** 2 / SPREAD**2

    best = minimize_scalar(cost, bounds=(np.log(LEAST), np.log(MOST)), method="bounded")
    assert np.log(learnt_mixing(blends).m) == pytest.approx(best.x, abs=0.02)
