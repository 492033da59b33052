"""Volumes and areas of solids against quadrature and published values."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import integrate, special

from wembit.core.contract.requests import SHAPE
from wembit.core.craft.cutter_shapes import CUTTERS
from wembit.core.shape import sizes
from wembit.core.shape.elliptic import carlson_rg
from wembit.core.shape.polygon import crosses_itself
from wembit.core.shape.sizes import cut_as
from wembit.core.shape.solids import (
    Box,
    Capsule,
    Cone,
    Cylinder,
    Dome,
    Ellipsoid,
    Frustum,
    Silhouette,
    Slab,
    Sphere,
    Torus,
    Wrap,
    solid,
)

SIZE = st.floats(0.5, 500)
ROUND = {
    "sphere": (Sphere(40), lambda x: math.sqrt(max(0, 20**2 - (x - 20) ** 2)), 40),
    "dome": (Dome(60, 20), lambda x: math.sqrt(max(0, 32.5**2 - (x + 12.5) ** 2)), 20),
    "high dome": (Dome(30, 28), None, 28),
    "frustum": (Frustum(30, 11, 24), lambda x: 15 - x * (15 - 5.5) / 24, 24),
    "cone": (Cone(15, 24), lambda x: 7.5 * (1 - x / 24), 24),
    "cylinder": (Cylinder(20, 18), lambda x: 10.0, 18),
    "capsule": (Capsule(12, 42), lambda x: math.sqrt(max(0, 36 - max(0, 6 - x, x - 36) ** 2)), 42),
}


@pytest.mark.parametrize("name", [name for name, row in ROUND.items() if row[1]])
def test_closed_forms_agree_with_quadrature(name):
    solid, radius, length = ROUND[name]
    volume, _ = integrate.quad(lambda x: math.pi * radius(x) ** 2, 0, length, limit=400)
    assert solid.volume == pytest.approx(volume, rel=1e-6)

    def ring(x, step=1e-6):
        slope = (radius(min(x + step, length)) - radius(max(x - step, 0))) / (min(x + step, length) - max(x - step, 0))
        return 2 * math.pi * radius(x) * math.hypot(1, slope)

    side, _ = integrate.quad(ring, 1e-5, length - 1e-5, limit=600)
    ends = math.pi * (radius(0) ** 2 + radius(length) ** 2)
    assert solid.area == pytest.approx(side + ends, rel=2e-3)


def test_a_dome_as_high_as_its_ball_is_a_sphere_and_half_of_it_a_half():
    assert Dome(40, 20).volume == pytest.approx(Sphere(40).volume / 2)
    assert Dome(1e-6, 40).volume == pytest.approx(Sphere(40).volume)


def test_torus_by_pappus():
    # Pappus: volume = area of the section × way of its middle; Bronstein, Handbook of Mathematics
    ring = Torus(42, 12)
    assert ring.volume == pytest.approx(math.pi * 6**2 * 2 * math.pi * 15)
    assert ring.area == pytest.approx(2 * math.pi * 6 * 2 * math.pi * 15)


def test_box_and_slab_of_a_rectangle_are_the_same():
    slab = Slab(((0, 0), (30, 0), (30, 24), (0, 24)), 18)
    assert slab.volume == Box(30, 24, 18).volume == pytest.approx(12960)
    assert slab.area == pytest.approx(Box(30, 24, 18).area)


def test_a_wrap_is_a_tube_without_ends():
    wrap = Wrap(78, 10, 1)
    assert wrap.volume == pytest.approx(Cylinder(10, 78).volume - Cylinder(1, 78).volume)
    assert wrap.area == pytest.approx(math.pi * 10 * 78)


@given(st.floats(1e-6, 100), st.floats(1e-6, 100), st.floats(1e-6, 100))
def test_carlsons_integral_agrees_with_scipy(x, y, z):
    assert carlson_rg(x, y, z) == pytest.approx(special.elliprg(x, y, z), rel=1e-11)


def test_ellipsoid_area_against_published_values():
    # Carlson (1995), table of check values: R_G(0.0796, 4, 0) and R_G(2, 3, 4) = 1.7255030280692
    assert carlson_rg(2, 3, 4) == pytest.approx(1.7255030280692, rel=1e-12)
    assert carlson_rg(0, 0.0796, 4) == pytest.approx(1.0284758090288, rel=1e-12)
    assert Ellipsoid(40, 40, 40).area == pytest.approx(Sphere(40).area)
    # oblate and prolate spheroids in closed form (Bronstein)
    a, c = 20.0, 10.0
    e = math.sqrt(1 - c * c / (a * a))
    oblate = 2 * math.pi * a * a * (1 + (1 - e * e) / e * math.atanh(e))
    assert Ellipsoid(40, 40, 20).area == pytest.approx(oblate)
    prolate = 2 * math.pi * c * c * (1 + a / (c * e) * math.asin(e))
    assert Ellipsoid(40, 20, 20).area == pytest.approx(prolate)


def test_silhouette_against_closed_forms_and_quadrature():
    tapered = Silhouette(((0, 30), (24, 11)))
    assert tapered.volume == pytest.approx(Frustum(30, 11, 24).volume)
    assert tapered.area == pytest.approx(Frustum(30, 11, 24).area)
    oval = Silhouette(((0, 20), (50, 44)), depth_ratio=0.7)

    def element(theta, x):
        a = 10 + x * 12 / 50
        slope, k = 12 / 50, 0.7
        return a * math.sqrt(k**2 * (slope**2 + math.cos(theta) ** 2) + math.sin(theta) ** 2)

    sleeve, _ = integrate.dblquad(element, 0, 50, 0, 2 * math.pi)
    ends = math.pi * 0.7 * (10**2 + 22**2)
    assert oval.area == pytest.approx(sleeve + ends, rel=1e-9)


SOLIDS = st.one_of(
    st.builds(Sphere, SIZE),
    st.builds(Ellipsoid, SIZE, SIZE, SIZE),
    st.builds(Dome, SIZE, SIZE),
    st.builds(Frustum, SIZE, SIZE, SIZE),
    st.builds(Box, SIZE, SIZE, SIZE),
    st.builds(lambda d, extra: Capsule(d, d + extra), SIZE, SIZE),
    st.builds(lambda tube, extra: Torus(2 * tube + extra, tube), SIZE, SIZE),
    st.builds(lambda w, r: Silhouette(((0, w), (10, w * 2), (30, w / 2)), r), SIZE, st.floats(0.2, 3)),
)


@given(SOLIDS, st.floats(0.05, 20))
def test_solids_grow_with_the_cube_and_skins_with_the_square(solid, s):
    assert solid.scaled(s).volume == pytest.approx(solid.volume * s**3, rel=1e-9)
    assert solid.scaled(s).area == pytest.approx(solid.area * s**2, rel=1e-9)


@given(SOLIDS, st.floats(0.1, 10))
def test_scaling_there_and_back_changes_nothing(solid, s):
    assert solid.scaled(s).scaled(1 / s).volume == pytest.approx(solid.volume, rel=1e-9)


@given(SOLIDS)
def test_no_solid_has_less_skin_than_the_ball_of_its_volume(solid):
    # isoperimetric inequality
    assert solid.area**3 >= 36 * math.pi * solid.volume**2 * (1 - 1e-9)


def test_a_small_core_wound_to_3_cm():
    assert Sphere(30).volume / 1000 == pytest.approx(14.1, abs=0.05)  # common practice


def test_an_outline_that_crosses_itself_is_seen():
    assert crosses_itself(((0, 0), (10, 10), (10, 0), (0, 10)))
    assert not crosses_itself(((0, 0), (10, 0), (10, 10), (0, 10)))
    assert not crosses_itself(((0, 0), (10, 0), (5, 3), (10, 10), (0, 10)))


@given(st.integers(3, 40), st.floats(0.2, 0.9), st.randoms())
def test_a_star_round_a_point_never_crosses(count, least, chance):
    angles = np.linspace(0, 2 * math.pi, count, endpoint=False)
    points = [(math.cos(a) * chance.uniform(least, 1), math.sin(a) * chance.uniform(least, 1)) for a in angles]
    radii = [chance.uniform(least, 1) for _ in angles]
    points = [(r * math.cos(a), r * math.sin(a)) for r, a in zip(radii, angles, strict=True)]
    assert not crosses_itself(tuple(points))


@pytest.mark.parametrize("name", sorted(CUTTERS))
def test_a_flat_piece_is_cut_to_an_outline_and_stays_as_large(name):
    ear = {"kind": "slab", "outline": [[0, -7], [30, -9], [48, 0], [30, 9], [0, 7]], "thickness_mm": 3}
    cut = cut_as(ear, name)
    assert sizes.sizes(cut) == pytest.approx(sizes.sizes(ear))
    assert min(x for x, _ in cut["outline"]) == pytest.approx(0, abs=1e-6), "its foot lies at the root"
    solid(SHAPE({**cut}, "shape"))


def test_a_heart_stands_on_its_point_and_a_square_fills_its_box():
    box = {"kind": "slab", "outline": [[0, -5], [20, -5], [20, 5], [0, 5]], "thickness_mm": 2}
    heart = cut_as(box, "heart")
    foot = min(heart["outline"])
    assert foot[1] == pytest.approx(0, abs=0.05)
    assert solid(cut_as(box, "square")).volume == pytest.approx(400)
    assert solid(heart).volume < 400
