"""What a hand has taken says what it will take: laws, a second reckoning by drawing lots, and makers made up by the model."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import norm

from wembit.core.grams.estimate import Z90
from wembit.core.learning import calibration
from wembit.core.learning.calibration import learnt
from wembit.core.verbs import VERBS

MAKERS = 400
RATIOS = st.lists(st.floats(0.2, 5.0), min_size=1, max_size=12)


def held(bias: np.ndarray, scatter: np.ndarray, hands: list) -> np.ndarray:
    """For each made-up maker, how often the next taking lies in the answered range: exact, nothing is drawn."""
    middle, sigma = np.log([hand.bias for hand in hands]), np.array([hand.sigma for hand in hands])
    low, high = middle - Z90 * sigma, middle + Z90 * sigma
    return norm.cdf((high - bias) / scatter) - norm.cdf((low - bias) / scatter)


def test_the_range_holds_eight_in_ten_and_narrows():
    draw = np.random.default_rng(4)
    bias, scatter = draw.normal(0, 0.15, MAKERS), draw.uniform(0.10, 0.30, MAKERS)
    third, order, sigmas = MAKERS // 3, np.argsort(scatter), {}
    for n in (0, 1, 3, 10, 30):
        logs = bias[:, None] + scatter[:, None] * draw.normal(size=(MAKERS, n))
        hands = [learnt(list(np.exp(row))) for row in logs]
        within = held(bias, scatter, hands)
        assert 0.75 <= within.mean() <= 0.85, n
        for some in (order[:third], order[-third:]):
            assert 0.68 <= within[some].mean() <= 0.90, n
        sigmas[n] = np.mean([hand.sigma for hand in hands])
    assert sigmas[30] < 0.9 * sigmas[0]
    assert sorted(sigmas.values(), reverse=True)[2:] == [sigmas[n] for n in (3, 10, 30)]


@pytest.mark.parametrize("ratios", [[1.3], [0.8, 0.9, 0.85], [1.0, 1.6, 0.7, 1.2, 1.1, 0.9]])
def test_the_ends_of_the_range_are_the_percentiles_of_the_model(ratios, monkeypatch):
    """The same posterior by importance sampling: makers drawn from the prior, weighed by how well they fit."""
    monkeypatch.setattr(calibration, "WILDER", 0.0)
    hand, draw, many = learnt(ratios), np.random.default_rng(9), 400_000
    bias, scatter = draw.normal(0, 0.15, many), draw.uniform(0.10, 0.30, many)
    logs, n = np.log(ratios), len(ratios)
    weight = norm.pdf(logs.mean(), bias, scatter / math.sqrt(n * calibration.COUNTS))
    weight *= scatter ** (1 - n) * np.exp(-((logs - logs.mean()) ** 2).sum() / scatter**2 / 2)
    for z, share in ((-Z90, 0.1), (Z90, 0.9)):
        at = math.log(hand.bias) + z * hand.sigma / calibration.DRAWN_IN
        assert weight @ norm.cdf((at - bias) / scatter) / weight.sum() == pytest.approx(share, abs=0.004)


@given(RATIOS)
def test_the_order_of_records_says_nothing(ratios):
    one, other = learnt(ratios), learnt(ratios[::-1])
    assert (one.bias, one.sigma) == pytest.approx((other.bias, other.sigma))


@given(RATIOS)
def test_the_bias_lies_between_none_and_what_was_found(ratios):
    found = float(np.exp(np.log(ratios).mean()))
    assert min(1, found) - 1e-6 <= learnt(ratios).bias <= max(1, found) + 1e-6


@given(RATIOS)
def test_taking_more_than_before_raises_what_is_expected(ratios):
    assert learnt([*ratios, 1.0]).bias <= learnt([*ratios, 1.1]).bias + 1e-9


@given(RATIOS)
def test_the_inverse_ratios_invert_the_bias(ratios):
    assert learnt(ratios).bias * learnt([1 / ratio for ratio in ratios]).bias == pytest.approx(1)


def test_a_hand_that_is_far_off_is_believed_in_the_end():
    """Common practice has scatters within 0.10–0.30; a hand that takes threefold or scatters wildly is told all the same."""
    assert learnt([3.0] * 30).bias == pytest.approx(3, rel=0.05)
    wild = learnt([0.3, 3.0] * 15)
    assert wild.sigma > 0.6


def test_one_slip_does_not_turn_a_steady_hand():
    steady = [1.0, 1.05, 0.95, 1.02, 0.98, 1.0, 1.03, 0.97]
    assert learnt([*steady, 10.0]).bias < 1.6


def answers(records, ask):
    rule, verb = VERBS["calibrate"]
    request = {"records": records, "ask": ask}
    rule(request, "")
    assert verb is not None
    return verb(request)["answers"]


def record(maker, planned, actual, **of):
    return {"maker": maker, "planned_g": planned, "actual_g": actual, **of}


def test_the_verb_keeps_makers_firmness_and_roles_apart():
    records = [
        record("Mira", 10, 12, firmness="firm"),
        record("Mira", 1, 1.3, role="cover"),
        record("Mira", 5, 6, firmness="firm"),
        record("Joss", 10, 8, firmness="firm"),
    ]
    asked = [
        {"maker": "Mira", "firmness": "firm"},
        {"maker": "Mira", "role": "cover"},
        {"maker": "Joss", "role": "core"},
    ]
    firm, cover, unknown = answers(records, asked)
    assert (firm["maker"], firm["firmness"], firm["n"]) == ("Mira", "firm", 2)
    assert (cover["role"], cover["n"]) == ("cover", 1)
    assert firm["bias"] == pytest.approx(learnt([1.2, 1.2]).bias)
    assert unknown == {"maker": "Joss", "role": "core", "bias": 1.0, "sigma": 0.25, "n": 0}
