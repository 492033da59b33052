"""A touch on the colour map asks for the colour that is drawn there."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour.map_place import (
    ASKED_CHROMA,
    GREYS_X,
    HUES_FROM,
    HUES_WIDE,
    RADIUS,
    colour_by_hue,
    colour_by_lightness,
    place_by_hue,
    place_by_lightness,
)

LIGHTS, AXES = st.floats(0, 100), st.floats(-60, 60)


@given(AXES, AXES, st.sampled_from([40, 60, 100]))
def test_by_hue_the_colour_at_its_place_has_its_a_and_b(a, b, rim):
    assert colour_by_hue(*place_by_hue((30, a, b), rim), rim)[1:] == pytest.approx((a, b), abs=1e-9)


def test_by_hue_the_rim_is_the_radius_and_yellow_is_up():
    assert place_by_hue((50, 40, 0), 40) == (RADIUS, 0), "a* to the right"
    x, y = place_by_hue((50, 0, 40), 40)
    assert (x, y) == (0, -RADIUS), "b* upwards, and y runs down"


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
