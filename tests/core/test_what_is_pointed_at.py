"""When a drawing points at something: the borders of each rule, from both sides."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour.difference import delta_e_2000, told_apart
from wembit.core.colour.show_through import grins_through
from wembit.core.craft.materials import WOOL_DENSITY, felt_mm
from wembit.core.craft.notions import shanks_meet

GREY = (50.0, 0.0, 0.0)


@given(st.floats(0, 100))
def test_two_greys_are_told_apart_beyond_two_and_a_half(lightness):
    other = (lightness, 0.0, 0.0)
    assert told_apart(GREY, other) == (
        delta_e_2000(GREY, other) > 2.5
    )  # by the studio's words, "close"  # common practice
    assert told_apart(GREY, other) == told_apart(other, GREY)


@pytest.mark.parametrize(
    ("g_m2", "paler_by", "seen"),
    [(150, 60, False), (151, 60, True), (151, 25, False), (151, 25.1, True), (400, -60, False)],
)
def test_a_heavy_cover_over_a_much_darker_ground_shows_it(g_m2, paler_by, seen):
    # over 150 g/m² and more than 25 L* paler; assumed
    assert grins_through(g_m2, (30.0 + paler_by, 5.0, 5.0), (30.0, -5.0, 0.0)) is seen


@pytest.mark.parametrize(
    ("shank", "apart", "meet"), [(9.9, 20, False), (10, 20, True), (10.1, 20, True), (0, 20, False)]
)
def test_two_shanks_meet_where_they_are_as_long_as_the_head_is_wide(shank, apart, meet):
    assert shanks_meet(shank, apart) is meet


def test_felt_is_as_thick_as_its_weight_fills():
    # 1,310 g of wool pressed to its own density (Morton & Hearle, Physical Properties of Textile Fibres) fill a litre, a
    # square metre of it one millimetre
    assert felt_mm(1310, WOOL_DENSITY) == pytest.approx(1.0)
    assert felt_mm(130, 0.13) == pytest.approx(1.0)
