"""Outlines of cutters and blades: closed, simple, as wide as they are said to be."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from wembit.core.craft.cutter_shapes import BLADE_MM, CUTTERS, SECTIONS, blade, blade_mm, scaled
from wembit.core.shape.polygon import crosses_itself


@pytest.mark.parametrize("name", CUTTERS)
def test_a_cutter_is_as_wide_as_it_is_said_and_does_not_cross_itself(name):
    points = scaled(name, 40)
    wide = max(x for x, _ in points) - min(x for x, _ in points)
    assert wide == pytest.approx(40, abs=0.02)
    assert not crosses_itself(points)
    assert len(points) >= 4


# times as tall as wide: of the shapes' own geometry (a pentagram's 0.951, between tips two apart and from tip to foot)
TALL = {
    "disc": 1,
    "oval": 1.5,
    "drop": 1.63,
    "leaf": 2,
    "ear": 3.2,
    "heart": 0.904,
    "star": 0.951,
    "moon": 0.9,
    "square": 1,
}


@pytest.mark.parametrize("name", CUTTERS)
def test_a_cutter_is_as_tall_as_its_shape_is_and_mirrored(name):
    points = CUTTERS[name]
    tall = max(y for _, y in points) - min(y for _, y in points)
    assert tall == pytest.approx(TALL[name], abs=0.005)
    mirrored = {(round(-x, 2), round(y, 2)) for x, y in points}
    assert sum(min(abs(x - u) + abs(y - v) for u, v in mirrored) < 0.04 for x, y in points) >= 0.9 * len(points)


def test_areas_of_cutters_are_those_of_their_shapes():
    def area(name):
        return Polygon(CUTTERS[name]).area

    assert area("disc") == pytest.approx(math.pi / 4, rel=0.01)
    assert area("oval") == pytest.approx(math.pi / 4 * 1.5, rel=0.01)
    assert area("leaf") == pytest.approx(2 * 2.0 / math.pi, rel=0.01), "twice the area under half a sine"
    assert area("ear") == pytest.approx(2 * 3.2 / math.pi, rel=0.01)
    assert area("square") == 1
    # ∫ x dy of x = sin³ t / 2 and its y is 180π/1024 (the heart curve's 180π at 32 wide)
    assert area("heart") == pytest.approx(180 * math.pi / 1024, rel=0.01)
    # ten triangles of radii 0.5 and 0.22 under 36°, made one wide (÷ 0.951²)
    assert area("star") == pytest.approx(5 * 0.5 * 0.22 * math.sin(math.radians(36)) / 0.951**2, rel=0.01)


@pytest.mark.parametrize(
    ("section", "radii"),
    [("triangle", [0.5] * 3), ("twisted", [0.5] * 3), ("star", [0.5, 0.24] * 4), ("round", [0.5] * 24)],
)
def test_a_blade_has_its_corners_at_half_its_thickness(section, radii):
    points = blade(section, 2.0)
    assert [math.hypot(x, y) / 2 for x, y in points] == pytest.approx(radii, abs=0.002)
    assert points[0] == pytest.approx((0, -1)), "the first corner is at the top"


@pytest.mark.parametrize("section", SECTIONS)
def test_a_blade_lies_within_its_thickness(section):
    assert all(x * x + y * y <= 0.51**2 for x, y in blade(section, 1.0))


@given(st.floats(20, 50))
def test_a_higher_gauge_is_never_thicker(gauge):
    assert blade_mm(gauge + 1) <= blade_mm(gauge) <= max(BLADE_MM.values())
