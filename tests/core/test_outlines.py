"""Outlines of cutters and blades: closed, simple, as wide as they are said to be."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.craft.cutter_shapes import BLADE_MM, CUTTERS, SECTIONS, blade, blade_mm, scaled
from wembit.core.shape.polygon import crosses_itself


@pytest.mark.parametrize("name", CUTTERS)
def test_a_cutter_is_as_wide_as_it_is_said_and_does_not_cross_itself(name):
    points = scaled(name, 40)
    wide = max(x for x, _ in points) - min(x for x, _ in points)
    assert wide == pytest.approx(40, rel=0.08)
    assert not crosses_itself(points)
    assert len(points) >= 4


@pytest.mark.parametrize("section", SECTIONS)
def test_a_blade_lies_within_its_thickness(section):
    assert all(x * x + y * y <= 0.51**2 for x, y in blade(section, 1.0))


@given(st.floats(20, 50))
def test_a_higher_gauge_is_never_thicker(gauge):
    assert blade_mm(gauge + 1) <= blade_mm(gauge) <= max(BLADE_MM.values())
