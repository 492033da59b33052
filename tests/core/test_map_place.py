"""A touch on the colour map asks for the colour that is drawn there."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour.map_place import (
    ASKED_CHROMA,
    GREYS_X,
    HOLE,
    HUES_FROM,
    HUES_WIDE,
    MUTED,
    RADIUS,
    colour_by_hue,
    colour_by_lightness,
    colour_on_ladder,
    is_muted,
    place_by_hue,
    place_by_lightness,
    place_on_ladder,
)

LIGHTS, AXES = st.floats(0, 100), st.floats(-60, 60)


@given(AXES, AXES, st.sampled_from([40, 60, 100]))
def test_by_hue_the_colour_at_its_place_has_its_a_and_b(a, b, rim):
    assert colour_by_hue(*place_by_hue((30, a, b), rim), rim)[1:] == pytest.approx((a, b), abs=1e-9)


def test_by_hue_the_rim_is_the_radius_and_yellow_is_up():
    assert place_by_hue((50, 40, 0), 40) == (RADIUS, 0), "a* to the right"
    x, y = place_by_hue((50, 0, 40), 40)
    assert (x, y) == (0, -RADIUS), "b* upwards, and y runs down"


@given(LIGHTS, st.floats(0, MUTED, exclude_max=True), st.floats(0, 2 * math.pi))
def test_what_is_muted_stands_on_the_ladder_by_its_lightness_and_is_asked_for_there(light, chroma, hue):
    lab = (light, chroma * math.cos(hue), chroma * math.sin(hue))
    assert is_muted(lab) == (math.hypot(*lab[1:]) < MUTED)
    x, y = place_on_ladder(lab)
    assert x == 0
    assert colour_on_ladder(y) == pytest.approx((light, 0, 0), abs=1e-9)


def test_the_disc_begins_where_a_hue_is_seen_and_white_is_above_black():
    assert not is_muted((50, MUTED, 0))
    assert math.hypot(*place_by_hue((50, MUTED, 0), 40)) == pytest.approx(HOLE)
    assert place_on_ladder((95, 1, 1))[1] < place_on_ladder((12, 0, 0))[1]


@given(LIGHTS, st.floats(0, 2 * math.pi))
def test_by_lightness_the_colour_at_its_place_has_its_lightness_and_hue(light, hue):
    lab = (light, ASKED_CHROMA * math.cos(hue), ASKED_CHROMA * math.sin(hue))
    x, y = place_by_lightness(lab)
    assert HUES_FROM <= x <= HUES_FROM + HUES_WIDE
    assert colour_by_lightness(x, y) == pytest.approx(lab, abs=1e-6)


@given(LIGHTS)
def test_greys_stand_apart_and_are_asked_for_there(light):
    x, y = place_by_lightness((light, 0, 0))
    assert x == GREYS_X
    asked = colour_by_lightness(x, y)
    assert asked == pytest.approx((light, 0, 0))


@pytest.mark.parametrize(("y", "light"), [(-RADIUS * 2, 100), (RADIUS * 2, 0), (0, 50)])
def test_beyond_the_sheet_white_and_black_are_asked_for(y, light):
    assert colour_by_lightness(0, y)[0] == light
