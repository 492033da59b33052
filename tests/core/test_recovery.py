"""The basis, and curves recovered from colours, against the CIE's tables and a general optimiser."""

import warnings

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import minimize

from wembit.core.colour.basis import NM, SIZE, WEIGHTS
from wembit.core.colour.conversions import lab_to_xyz, ratios, xyz_rows_to_lab, xyz_to_lab, xyz_to_srgb
from wembit.core.colour.recovery import curves

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour as colour_science

HEX = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}")


def test_the_basis_is_the_table_of_the_cie():
    # CIE 018:2019 and CIE 15:2018, as a reference library carries them
    seen = colour_science.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"]
    light = colour_science.SDS_ILLUMINANTS["D65"]
    table = np.array([seen[nm] * light[nm] for nm in NM])
    assert (NM[0], NM[-1], len(NM)) == (380, 730, SIZE)
    assert pytest.approx((table / table.sum(axis=0)).T, abs=1e-9) == WEIGHTS


@given(HEX)
def test_every_colour_of_the_screen_has_a_curve_that_is_seen_as_it(srgb):
    wanted = ratios(srgb)
    found, reached = curves(np.array([wanted]))
    assert reached[0]
    assert (found > 0).all()
    assert (found < 1).all()
    if 1e-5 <= wanted[1] <= 1 - 1e-5:
        assert WEIGHTS @ found[0] == pytest.approx(wanted, abs=1e-8)


@pytest.mark.parametrize("srgb", ["#6f7d43", "#2f5a73", "#c8a06a", "#8b2f2a", "#e8e2d0"])
def test_a_curve_is_the_smoothest_there_is(srgb):
    """Burns (2020): least slope squared of atanh(2R − 1) with the exact tristimulus, by a general optimiser."""
    wanted = np.array(ratios(srgb))
    slope = np.diff(np.eye(SIZE), axis=0)

    def bumps(z):
        steps = slope @ z
        return steps @ steps, 2 * slope.T @ steps

    exact = {
        "type": "eq",
        "fun": lambda z: WEIGHTS @ ((np.tanh(z) + 1) / 2) - wanted,
        "jac": lambda z: WEIGHTS * ((1 - np.tanh(z) ** 2) / 2),
    }
    begin = np.full(SIZE, np.arctanh(2 * wanted[1] - 1))
    best = minimize(
        bumps, begin, jac=True, constraints=[exact], method="SLSQP", options={"maxiter": 500, "ftol": 1e-12}
    )
    assert curves(wanted[None])[0][0] == pytest.approx((np.tanh(best.x) + 1) / 2, abs=2e-4)


@pytest.mark.parametrize(("luminance", "flat"), [(0.0, 1e-5), (0.5, 0.5), (1.0, 1 - 1e-5)])
def test_a_grey_is_flat_and_black_and_white_are_not_quite(luminance, flat):
    found, reached = curves(np.full((1, 3), luminance))
    assert reached[0]
    assert found[0] == pytest.approx(np.full(SIZE, flat), abs=1e-8)


def test_a_colour_that_no_curve_reaches_is_told_from_one_that_comes_late():
    near_the_edge = lab_to_xyz((30, 60, -90))
    found, reached = curves(np.array([lab_to_xyz((50, 120, -120)), ratios("#0000ff"), near_the_edge]))
    assert reached.tolist()[:2] == [False, True]
    assert not reached[2] or WEIGHTS @ found[2] == pytest.approx(near_the_edge, abs=1e-8)


def test_colours_recovered_together_are_those_recovered_alone():
    some = np.array([ratios(srgb) for srgb in ("#6f7d43", "#000000", "#0000ff", "#fffffe", "#123456")])
    together = curves(some)[0]
    for one, row in zip(some, together, strict=True):
        assert curves(one[None])[0][0] == pytest.approx(row, abs=1e-9)


@settings(max_examples=50)
@given(HEX)
def test_lab_and_screen_lead_back(srgb):
    assert xyz_to_srgb(ratios(srgb)) == srgb
    assert lab_to_xyz(xyz_to_lab(ratios(srgb))) == pytest.approx(ratios(srgb), abs=1e-12)
    assert xyz_rows_to_lab(np.array(ratios(srgb))) == pytest.approx(xyz_to_lab(ratios(srgb)), abs=1e-9)


def test_a_colour_alone_has_the_same_curve_as_among_many():
    """The dense solve for a few and the banded one for many are the same step."""
    chance = np.random.default_rng(4)
    colours = np.array([ratios(f"#{n:06x}") for n in chance.integers(0, 0xFFFFFF, 40)])
    together, _ = curves(colours)
    for colour, curve in zip(colours, together, strict=True):
        assert curves(colour[None])[0][0] == pytest.approx(curve, abs=1e-7)
