"""Each solid knows itself: what its sections, outline and sizes say of one another, for every kind of the registry."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from wembit.core.contract.requests import SHAPE
from wembit.core.contract.shape_schema import shape_schema
from wembit.core.errors import BadInput
from wembit.core.shape.sizes import CLOSED, reshaped
from wembit.core.shape.solids import KINDS, SOLIDS, Box, Ellipsoid, Slab, Torus, Wrap, shape_of, solid

EXAMPLES = {
    "sphere": {"diameter_mm": 30.0},
    "ellipsoid": {"length_mm": 60.0, "width_mm": 34.0, "height_mm": 40.0},
    "dome": {"diameter_mm": 50.0, "height_mm": 20.0},
    "cylinder": {"diameter_mm": 20.0, "length_mm": 50.0},
    "frustum": {"diameter1_mm": 30.0, "diameter2_mm": 12.0, "length_mm": 44.0},
    "cone": {"diameter_mm": 26.0, "length_mm": 38.0},
    "capsule": {"diameter_mm": 18.0, "length_mm": 52.0},
    "box": {"length_mm": 40.0, "width_mm": 24.0, "height_mm": 16.0},
    "torus": {"outer_diameter_mm": 50.0, "tube_diameter_mm": 12.0},
    "slab": {"outline": [[0.0, -8.0], [30.0, -4.0], [36.0, 0.0], [30.0, 5.0], [0.0, 9.0]], "thickness_mm": 4.0},
    "silhouette": {"stations": [[0.0, 10.0], [20.0, 36.0], [50.0, 8.0]], "depth_ratio": 0.8},
    "none": {},
    "wrap": {"length_mm": 90.0, "diameter_mm": 8.0, "wire_mm": 1.0},
}
ALL = [pytest.param(solid({"kind": kind, **given}), id=kind) for kind, given in EXAMPLES.items()]
TURNED = [other for other in ALL if other.id not in ("slab", "none", "torus")]


def test_every_kind_of_the_registry_has_an_example():
    assert list(KINDS) == [cls.KIND for cls in SOLIDS]
    assert set(EXAMPLES) == set(KINDS)


@pytest.mark.parametrize("one", TURNED)
def test_sections_along_the_axis_add_up_to_the_volume(one):
    # Cavalieri: the volume is the integral of the sections, π·a·b of an ellipse and 4·a·b of a box
    ts = (np.arange(4000) + 0.5) / 4000
    factor = 4 if isinstance(one, Box) else math.pi
    areas = [factor * math.prod(one.half_widths(t)) for t in ts]
    wire = math.pi / 4 * one.wire_mm**2 * one.axis_mm if isinstance(one, Wrap) else 0
    assert np.mean(areas) * one.axis_mm - wire == pytest.approx(one.volume, rel=1e-4)


@pytest.mark.parametrize("one", TURNED)
def test_the_side_outline_is_as_long_as_the_axis_and_as_wide_as_the_sections(one):
    outline = one.side_outline()
    left, low, right, high = outline.bounds
    assert (left, right) == pytest.approx((0, one.axis_mm), abs=0.1)
    widest = max(one.half_widths(t)[0] for t in np.linspace(0, 1, 401))
    assert (low, high) == pytest.approx((-widest, widest), rel=5e-3)
    area = np.mean([2 * one.half_widths(t)[0] for t in (np.arange(4000) + 0.5) / 4000]) * one.axis_mm
    assert outline.area == pytest.approx(area, rel=5e-3)


def test_a_slab_is_as_broad_as_its_outline_and_a_ring_as_wide_as_its_rim():
    slab = solid({"kind": "slab", **EXAMPLES["slab"]})
    assert slab.half_widths(0.0) == (9.0, 2.0)
    assert slab.span_at(30.0) == (-4.0, 5.0)
    assert slab.side_outline().area == pytest.approx(slab.face)
    ring = solid({"kind": "torus", **EXAMPLES["torus"]})
    assert ring.half_widths(0.5) == (25.0, 25.0)
    assert ring.hole_mm == 26.0
    assert ring.side_outline().area == pytest.approx(math.pi * (25**2 - 13**2), rel=2e-3)


@pytest.mark.parametrize("one", ALL)
def test_sizes_given_back_change_nothing_and_a_shape_comes_back_from_its_object(one):
    assert one.with_sizes(one.sizes) == one
    assert solid(shape_of(one)) == one
    assert one.scaled(1.0) == one
    assert one.scaled(3.0).longest_mm == pytest.approx(3 * one.longest_mm)


@given(st.sampled_from(ALL).map(lambda each: each.values[0]), st.floats(0.3, 4))
def test_new_sizes_are_what_was_asked(one, times):
    wanted = {name: mm * times for name, mm in one.sizes.items()}
    assert one.with_sizes(wanted).sizes == pytest.approx(wanted)


def test_a_ring_widens_with_its_hole():
    ring = Torus(50.0, 12.0).with_sizes({"hole_mm": 30.0})
    assert (ring.hole_mm, ring.tube_diameter_mm, ring.outer_diameter_mm) == (30.0, 12.0, 54.0)


@pytest.mark.parametrize("one", ALL)
def test_schema_and_validator_take_the_same_keys(one):
    schema, shape = Draft202012Validator(shape_schema()), shape_of(one)
    assert schema.is_valid(shape)
    assert SHAPE(dict(shape), "shape")["kind"] == one.KIND
    for key in list(shape):
        short = {name: value for name, value in shape.items() if name != key}
        assert schema.is_valid(short) == (key == "depth_ratio") == taken(short)
    assert not schema.is_valid({**shape, "colour_mm": 3})
    assert not taken({**shape, "colour_mm": 3})


def taken(shape) -> bool:
    try:
        SHAPE({**shape}, "shape")
    except BadInput:
        return False
    return True


def test_only_what_bulges_everywhere_is_convex():
    assert Ellipsoid(3, 2, 1).convex
    assert Box(3, 2, 1).convex
    assert not Torus(50, 12).convex
    assert not Wrap(90, 8, 1).convex
    assert solid({"kind": "silhouette", "stations": [[0, 4], [5, 9], [10, 4]]}).convex
    assert not solid({"kind": "silhouette", "stations": [[0, 9], [5, 4], [10, 9]]}).convex
    assert not Slab(((0, 0), (10, 0), (10, 10), (5, 2), (0, 10)), 3).convex


@pytest.mark.parametrize("kind", CLOSED)
def test_any_shape_can_become_any_closed_one_and_stays_possible(kind):
    for other in ALL:
        shape = reshaped(shape_of(other.values[0]), kind)
        if other.id != "none":
            assert taken(shape), (other.id, kind)


LONG = {"kind": "ellipsoid", "length_mm": 80, "width_mm": 50, "height_mm": 40}


@pytest.mark.parametrize(
    ("shape", "kind", "becomes"),
    [
        (LONG, "box", {"length_mm": 80, "width_mm": 50, "height_mm": 40}),
        (LONG, "sphere", {"diameter_mm": 50}),
        (LONG, "cylinder", {"length_mm": 80, "diameter_mm": 50}),
        (LONG, "capsule", {"length_mm": 80, "diameter_mm": 50}),
        (LONG, "frustum", {"length_mm": 80, "diameter1_mm": 50, "diameter2_mm": 30}),
        (LONG, "torus", {"outer_diameter_mm": 80, "tube_diameter_mm": 20}),
        (LONG, "wrap", {"length_mm": 80, "diameter_mm": 50, "wire_mm": 1}),
        ({"kind": "sphere", "diameter_mm": 30}, "ellipsoid", {"length_mm": 30, "width_mm": 30, "height_mm": 30}),
        ({"kind": "torus", "outer_diameter_mm": 60, "tube_diameter_mm": 9}, "capsule",
         {"length_mm": 60, "diameter_mm": 36}),
        ({"kind": "frustum", "length_mm": 90, "diameter1_mm": 40, "diameter2_mm": 25}, "cylinder",
         {"length_mm": 90, "diameter_mm": 40}),
        ({"kind": "frustum", "length_mm": 90, "diameter1_mm": 40, "diameter2_mm": 25}, "frustum",
         {"length_mm": 90, "diameter1_mm": 40, "diameter2_mm": 25}),
        ({"kind": "dome", "diameter_mm": 40, "height_mm": 14}, "box",
         {"length_mm": 14, "width_mm": 14, "height_mm": 14}),
    ],
)  # fmt: skip
def test_another_shape_keeps_the_extents(shape, kind, becomes):
    assert reshaped(shape, kind) == {"kind": kind, **becomes}


def test_a_kind_that_is_no_closed_shape_changes_nothing():
    assert reshaped(LONG, "none") == LONG and reshaped(LONG, "cloud") == LONG
