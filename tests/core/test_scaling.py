"""A figure made larger takes what the estimate says of that scale; what is left of a range keeps its shape."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.larger import larger
from wembit.core.craft.materials import SMALLEST_PIECE_G
from wembit.core.grams.estimate import LayerGrams, Range, estimate
from wembit.core.grams.scaling import on_another_skin, scaled_armature, scaled_rule, scaled_seat, scaled_shape
from wembit.core.grams.small_pieces import at_least_a_piece
from wembit.core.pose.placing import Seat
from wembit.core.shape.solids import solid
from wembit.core.work.order import steps
from wembit.core.work.worked import Wool, Worked

TIMES = st.floats(0.2, 5)
SHAPES = [
    {"kind": "sphere", "diameter_mm": 30},
    {"kind": "capsule", "length_mm": 60, "diameter_mm": 20},
    {"kind": "torus", "outer_diameter_mm": 40, "tube_diameter_mm": 8},
    {"kind": "slab", "outline": [[0, 0], [30, 5], [10, 20]], "thickness_mm": 4},
    {"kind": "silhouette", "stations": [[0, 0], [20, 14], [50, 6]], "depth_ratio": 0.8},
]
LAYERS = [
    {"role": "padding", "fibre": "b", "thickness_mm": 1.5, "firmness": "soft", "share": 0.5},
    {"role": "core", "fibre": "a", "share": 1.0},
    {"role": "weighed", "fibre": "c", "grams": 0.7},
    {"role": "detail", "fibre": "d", "area_mm2": 25, "srgb": "#333333", "over": "#ffffff", "micron_um": 21},
]


@pytest.mark.parametrize("shape", SHAPES, ids=lambda shape: shape["kind"])
@given(times=TIMES)
def test_a_part_stored_larger_takes_what_the_estimate_says_of_that_scale(shape, times):
    part = {"name": "x", "count": 2, "shape": shape, "firmness": "firm", "layers": LAYERS}
    larger = {**part, "shape": scaled_shape(shape, times)}
    larger["layers"] = [
        {"role": layer["role"], "fibre": layer["fibre"], **scaled_rule(layer["role"], layer, times)} for layer in LAYERS
    ]
    told, stored = estimate({"scale": times, "parts": [part]}), estimate({"parts": [larger]})
    for one, two in zip(told.parts[0].layers, stored.parts[0].layers, strict=True):
        assert two.rule_g == pytest.approx(one.rule_g, rel=1e-9), one.role


@given(once=TIMES, twice=TIMES)
def test_larger_twice_is_larger_by_the_product(once, twice):
    seat = {"on": "body", "t": 0.3, "angle": 40, "sink": 2.0, "bead_mm": 4.0, "shank_mm": 3.0, "bends": [[20, 30], [10, -5]],
            "copies": [{"t": 0.4, "sink": 1.0}]}  # fmt: skip
    one, two = scaled_seat(scaled_seat(seat, once), twice), scaled_seat(seat, once * twice)
    assert one["sink"] == pytest.approx(two["sink"])
    assert (one["t"], one["angle"], one["shank_mm"]) == (0.3, 40, 3.0), "shares, angles and a shank stay"
    assert Seat.of(two).sink_mm == pytest.approx(larger(Seat.of(seat), once * twice).sink_mm)
    assert one["copies"][0]["sink"] == pytest.approx(once * twice)
    for shape in SHAPES:
        assert solid(scaled_shape(scaled_shape(shape, once), twice)).volume == pytest.approx(
            solid(shape).volume * (once * twice) ** 3
        )


def test_wire_grows_longer_not_thicker_and_a_coat_only_when_told():
    told = {"gauge_mm": 1.0, "bare_mm": 13.0, "loop_mm": 6.0, "through_mm": 34.0, "back_mm": 5.0, "doubled": True}
    assert scaled_armature(told, 2) == told | {"through_mm": 68.0, "back_mm": 10.0}
    assert scaled_shape({"kind": "wrap", "length_mm": 50, "diameter_mm": 8, "wire_mm": 1.5}, 2) == {
        "kind": "wrap", "length_mm": 100, "diameter_mm": 16, "wire_mm": 1.5,
    }  # fmt: skip
    coat = {"row_spacing_mm": 6, "grams_per_cm": 0.04, "pulled_mm": 44, "finished_mm": 13, "share": 0.6}
    assert scaled_rule("coat", coat, 2) == coat
    grown = scaled_rule("coat", coat | {"scale_pile": True}, 2)
    assert (grown["grams_per_cm"], grown["pulled_mm"], grown["finished_mm"], grown["row_spacing_mm"]) == (
        0.08,
        88,
        26,
        6,
    )


@given(st.floats(0.01, 500), st.floats(0.05, 0.6), st.floats(0, 600))
def test_what_is_left_keeps_its_shape_and_is_never_below_nothing(middle, sigma, taken):
    whole = Range.of(middle, sigma)
    left = whole.less(taken)
    assert left.p50 == pytest.approx(max(middle - taken, 0), abs=1e-9)
    assert 0 <= left.p10 <= left.p50 <= left.p90
    if left.p50 > 1e-6:
        assert left.p90 / left.p50 == pytest.approx(whole.p90 / whole.p50)
    assert Range(0, 0, 0).less(5) == Range(0, 0, 0)


@given(st.floats(1e-5, 3), st.integers(1, 64), st.floats(0.5, 2))
def test_no_piece_takes_less_than_the_smallest(rule, count, bias):
    layer = LayerGrams("detail", "straw", rule, bias, 0.25)
    floored = at_least_a_piece(layer, count)
    assert floored.middle == pytest.approx(max(layer.middle, SMALLEST_PIECE_G * count))
    assert at_least_a_piece(LayerGrams("detail", "straw", 0.0, bias, 0.25), count).middle == 0, "nothing stays nothing"
    assert Range(0.01, 0.03, 0.04).at_least(0.02) == Range(0.02, 0.03, 0.04)


def worked(key, on, *wools) -> Worked:
    grams = tuple(Wool("core", wool, wool, 3.0, 0.0, 0.0, 0.0, 0.0, 0.0, "core", "romney") for wool in wools)
    return Worked(key, key, "body" if on is None else "leg", 1, on, "firm", grams)


def test_nothing_is_joined_to_what_has_no_wool():
    def joins(*parts):
        return [step.title for step in steps(parts, {}) if step.kind == "join"]

    body, hip, leg = worked("body", None, "grey"), worked("hip", "body"), worked("leg", "hip", "grey")
    assert joins(body, worked("hip", "body", "grey"), leg) == ["Join hip to body", "Join leg to hip"]
    assert joins(body, hip, leg) == ["Join leg to body"], "over the part without wool"
    assert joins(worked("body", None), leg) == []
    assert joins(worked("body", None), hip, leg) == []


@given(st.floats(1, 5000), st.floats(10, 90_000), st.floats(0.3, 3))
def test_a_patch_keeps_its_share_of_the_skin(area, skin, times):
    grown = on_another_skin({"area_mm2": area, "t": 0.4}, skin, skin * times**2)
    assert grown["area_mm2"] / (skin * times**2) == pytest.approx(area / skin, rel=1e-3)
    assert grown["t"] == 0.4
    assert on_another_skin({"spots": 8, "across_mm": 4}, skin, 2 * skin) == {"spots": 8, "across_mm": 4}
    assert on_another_skin({"area_mm2": area}, 0.0, skin) == {"area_mm2": area}, "what had no skin is no measure"
