"""Colour spaces and differences against published data."""

import warnings

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour.conversions import lab
from wembit.core.colour.difference import delta_e_2000, in_words

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour as colour_science

# Sharma, Wu & Dalal (2005), table 1: the supplementary test data
SHARMA = """
50 2.6772 -79.7751 50 0 -82.7485 2.0425
50 3.1571 -77.2803 50 0 -82.7485 2.8615
50 2.8361 -74.0200 50 0 -82.7485 3.4412
50 -1.3802 -84.2814 50 0 -82.7485 1.0000
50 -1.1848 -84.8006 50 0 -82.7485 1.0000
50 -0.9009 -85.5211 50 0 -82.7485 1.0000
50 0 0 50 -1 2 2.3669
50 -1 2 50 0 0 2.3669
50 2.4900 -0.0010 50 -2.4900 0.0009 7.1792
50 2.4900 -0.0010 50 -2.4900 0.0010 7.1792
50 2.4900 -0.0010 50 -2.4900 0.0011 7.2195
50 2.4900 -0.0010 50 -2.4900 0.0012 7.2195
50 -0.0010 2.4900 50 0.0009 -2.4900 4.8045
50 -0.0010 2.4900 50 0.0010 -2.4900 4.8045
50 -0.0010 2.4900 50 0.0011 -2.4900 4.7461
50 2.5 0 50 0 -2.5 4.3065
50 2.5 0 73 25 -18 27.1492
50 2.5 0 61 -5 29 22.8977
50 2.5 0 56 -27 -3 31.9030
50 2.5 0 58 24 15 19.4535
50 2.5 0 50 3.1736 0.5854 1.0000
50 2.5 0 50 3.2972 0 1.0000
50 2.5 0 50 1.8634 0.5757 1.0000
50 2.5 0 50 3.2592 0.3350 1.0000
60.2574 -34.0099 36.2677 60.4626 -34.1751 39.4387 1.2644
63.0109 -31.0961 -5.8663 62.8187 -29.7946 -4.0864 1.2630
61.2901 3.7196 -5.3901 61.4292 2.2480 -4.9620 1.8731
35.0831 -44.1164 3.7933 35.0232 -40.0716 1.5901 1.8645
22.7233 20.0904 -46.6940 23.0331 14.9730 -42.5619 2.0373
36.4612 47.8580 18.3852 36.2715 50.5065 21.2231 1.4146
90.8027 -2.0831 1.4410 91.1528 -1.6435 0.0447 1.4441
90.9257 -0.5406 -0.9208 88.6381 -0.8985 -0.7239 1.5381
6.7747 -0.2908 -2.4247 5.8714 -0.0985 -2.2286 0.6377
2.0776 0.0795 -1.1350 0.9033 -0.0636 -0.5514 0.9082
""".split("\n")
HEX = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}")


@pytest.mark.parametrize("row", [row for row in SHARMA if row])
def test_the_34_pairs_of_sharma(row):
    l1, a1, b1, l2, a2, b2, expected = map(float, row.split())
    assert delta_e_2000((l1, a1, b1), (l2, a2, b2)) == pytest.approx(expected, abs=5e-5)
    assert delta_e_2000((l2, a2, b2), (l1, a1, b1)) == pytest.approx(expected, abs=5e-5)


@given(HEX)
def test_lab_agrees_with_a_reference_library(srgb):
    rgb = [int(srgb[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    white = colour_science.CCS_ILLUMINANTS["CIE 1931 2 Degree Standard Observer"]["D65"]
    expected = colour_science.XYZ_to_Lab(colour_science.sRGB_to_XYZ(rgb), white)
    # the four-decimal matrix and the reference's white differ in the fourth place
    assert lab(srgb) == pytest.approx(tuple(expected), abs=0.06)


@pytest.mark.parametrize("grey", ["#000000", "#1b1b1b", "#808080", "#d4d4d4", "#ffffff"])
def test_greys_have_no_hue(grey):
    light, a, b = lab(grey)
    assert abs(a) < 1e-9
    assert abs(b) < 1e-9
    assert 0 <= light <= 100


@given(HEX, HEX)
def test_a_difference_is_the_same_both_ways_and_none_to_itself(one, two):
    assert delta_e_2000(lab(one), lab(one)) == 0
    assert delta_e_2000(lab(one), lab(two)) == pytest.approx(delta_e_2000(lab(two), lab(one)), abs=1e-9)


@pytest.mark.parametrize(
    ("de00", "words"), [(0.9, "same to the eye"), (2.5, "close"), (5, "related"), (5.1, "another colour")]
)
def test_words_for_a_difference(de00, words):
    assert in_words(de00) == words
