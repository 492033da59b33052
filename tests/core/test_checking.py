"""Whether a piece came out as planned."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.craft.materials import FIRMNESS
from wembit.core.grams.estimate import estimate
from wembit.core.work.checking import Planned, along_scale, checked, firmness_of

BALL = Planned(40, 40, math.pi / 6 * 40**3, firmness="firm")  # 33.51 cm³
RATIOS = st.floats(0.5, 2)


def test_a_piece_made_as_the_estimate_says_is_as_planned():
    request = {
        "parts": [
            {"name": "ball", "shape": {"kind": "sphere", "diameter_mm": 40}, "firmness": "firm", "allowance": 0,
             "layers": [{"role": "core", "fibre": "x"}]}
        ]
    }  # fmt: skip
    grams = estimate(request).all.p50
    found = checked(BALL, 40, 40, grams)
    assert found.density == pytest.approx(FIRMNESS["firm"])
    assert (found.firmness, found.to_do) == ("firm", "As planned.")


@given(st.sampled_from(sorted(FIRMNESS)))
def test_each_firmness_is_its_own(name):
    assert firmness_of(FIRMNESS[name]) == name
    assert firmness_of(FIRMNESS[name] * 1.01) == firmness_of(FIRMNESS[name] * 0.99) == name


@given(RATIOS, RATIOS, st.floats(0.1, 30))
def test_density_is_weight_by_the_volume_that_was_measured(long, thick, grams):
    found = checked(BALL, 40 * long, 40 * thick, grams)
    assert found.density == pytest.approx(grams / (33.5103 * long * thick**2), rel=1e-4)


@given(RATIOS, st.floats(0.1, 30))
def test_without_a_thickness_it_is_a_larger_or_smaller_one_of_its_shape(long, grams):
    assert checked(BALL, 40 * long, None, grams) == checked(BALL, 40 * long, 40 * long, grams)


@pytest.mark.parametrize(
    ("long", "thick", "grams", "said", "adds"),
    [
        (46, 46, 5.7, "felt on, it shrinks", 0),
        (46, 46, 9.5, "take a new core", 0),
        (36, 36, 4.0, "Lay more on", 1.697),  # 0.17 × 33.51 − 4
        (36, 36, 6.5, "felted further", 0),
        (40, 40, 3.0, "softer than planned", 2.697),
        (40, 40, 9.0, "firmer than planned", 0),
        (40, 35, 4.0, "Thinner than planned. Lay more on", 1.697),
        (40, 40, 0, "Its size is as planned", 0),
        (50, 35, 0, "Longer and thinner", 0),
        (34, 46, 0, "roll it longer", 0),
    ],
)  # common practice
def test_what_to_do(long, thick, grams, said, adds):
    found = checked(BALL, long, thick, grams)
    assert said in found.to_do
    assert found.add_g == pytest.approx(adds, abs=0.001)


def test_wire_is_no_wool():
    bare = checked(Planned(50, 10, 3927, 1000), 50, 10, 0.4)
    assert bare.density == pytest.approx(0.4 / 2.927)


def test_what_is_added_makes_it_as_firm_as_planned():
    found = checked(BALL, 40, 40, 3.0)
    assert checked(BALL, 40, 40, 3.0 + found.add_g).to_do == "As planned."


def test_the_scale_goes_from_airy_to_very_firm_and_keeps_its_ends():
    places = [along_scale(density) for density in FIRMNESS.values()]
    assert places == sorted(places)
    assert 0 < places[0] < places[-1] < 1
    assert along_scale(0.001) == 0
    assert along_scale(5) == 1
