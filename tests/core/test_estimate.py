"""Grams of a figure: rules, ranges, laws of scaling."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.errors import BadInput
from wembit.core.estimate import estimate, total
from wembit.core.fibres import FIRMNESS, WOOL_DENSITY
from wembit.demo.figures import FIGURES

SHOW = {"micron_um": 21, "srgb": "#6f7d43", "over": "#e9e2d2"}


def part(shape=None, **more):
    shape = shape or {"kind": "sphere", "diameter_mm": 30}
    return {"name": "p", "shape": shape, "firmness": "medium", "layers": [{"role": "core", "fibre": "a"}], **more}


def grams(request):
    return estimate(request).all.p50


def test_a_core_is_volume_times_density_with_the_loss():
    volume = math.pi / 6 * 30**3 / 1000
    assert grams({"parts": [part(allowance=0)]}) == pytest.approx(volume * 0.13)
    assert grams({"parts": [part()]}) == pytest.approx(volume * 0.13 * 1.08)
    assert grams({"parts": [part(count=4)]}) == pytest.approx(4 * volume * 0.13 * 1.08)
    assert grams({"parts": [part(bias=1.2)], "bias": 3}) == pytest.approx(volume * 0.13 * 1.08 * 1.2)


def test_hand_felt_lies_below_machine_felt_and_far_below_the_fibre():
    # SAE J314: pressed wool felts run from about 0.17 (soft) to 0.34 g/cm³ (hard); the fibre is 1.31 (Morton & Hearle)
    assert list(FIRMNESS.values()) == sorted(FIRMNESS.values())
    assert FIRMNESS["airy"] < 0.17 and 0.17 <= FIRMNESS["firm"] <= FIRMNESS["very_firm"] < 0.34 < WOOL_DENSITY


def test_a_cover_is_area_by_the_least_weight():
    cover = {"role": "cover", "fibre": "b", "share": 0.5, "coats": 2, **SHOW}
    found = estimate({"parts": [part(layers=[cover], visible=0.8, allowance=0)]})
    area = math.pi * 30**2
    assert found.all.p50 == pytest.approx(area * 0.8 * 0.5 * 2 * 60 / 1e6)
    assert found.parts[0].layers[0].cover_g_m2 == 60


def test_a_coat_gives_its_trimmings():
    coat = {
        "role": "coat",
        "fibre": "b",
        "row_spacing_mm": 6,
        "grams_per_cm": 0.035,
        "pulled_mm": 44,
        "finished_mm": 13,
    }
    layer = estimate({"parts": [part(layers=[coat])]}).parts[0].layers[0]
    assert layer.trimmed_g == pytest.approx(layer.grams.p50 * (1 - 13 / 22))  # 44 mm folded stand 22 and are cut to 13
    straight = estimate({"parts": [part(layers=[{**coat, "folded": False}])]}).parts[0].layers[0]
    assert straight.trimmed_g == pytest.approx(layer.grams.p50 * (1 - 13 / 44))


def test_padding_lies_within_the_given_size():
    pad = {"role": "padding", "fibre": "b", "thickness_mm": 2, "firmness": "airy", "share": 0.5}
    found = estimate({"parts": [part(layers=[{"role": "core", "fibre": "a"}, pad], allowance=0)]})
    soft = math.pi * 30**2 * 0.5 * 2 / 1000
    assert found.totals["b"].p50 == pytest.approx(soft * 0.06)
    assert found.totals["a"].p50 == pytest.approx((math.pi / 6 * 27 - soft) * 0.13)
    with pytest.raises(BadInput, match="leaves nothing"):
        estimate({"parts": [part(layers=[{**pad, "thickness_mm": 10, "share": 1}])]})


def test_wire_is_off_and_a_loose_end_is_added():
    volume = math.pi / 6 * 30**3
    assert grams({"parts": [part(armature_mm3=1000, allowance=0)]}) == pytest.approx((volume - 1000) * 0.13 / 1000)
    assert grams({"parts": [part(loose_end_mm3=500, allowance=0)]}) == pytest.approx((volume + 500) * 0.13 / 1000)
    scaled = {"scale": 2, "parts": [part(armature_mm3=1000, loose_end_mm3=500, allowance=0)]}
    assert grams(scaled) == pytest.approx((8 * volume - 2000 + 4000) * 0.13 / 1000)


def test_a_filling_has_its_own_density():
    layers = [
        {"role": "core", "fibre": "w", "share": 0.4},
        {"role": "core", "fibre": "f", "share": 0.6, "density_g_cm3": 0.04},
    ]
    found = estimate({"parts": [part(layers=layers, allowance=0)]})
    assert found.totals["f"].p50 == pytest.approx(math.pi / 6 * 27 * 0.6 * 0.04)


# doubling every length: solids × 8, covers × 4, unchanged locks × 4, longer locks × 8  # common practice
@pytest.mark.parametrize(
    ("layer", "times"),
    [
        ({"role": "core"}, 8),
        ({"role": "weighed", "grams": 0.3}, 8),
        ({"role": "cover", **SHOW}, 4),
        ({"role": "detail", "area_mm2": 40, **SHOW}, 4),
        ({"role": "coat", "row_spacing_mm": 6, "grams_per_cm": 0.04, "pulled_mm": 44, "finished_mm": 13}, 4),
        (
            {
                "role": "coat",
                "row_spacing_mm": 6,
                "grams_per_cm": 0.04,
                "pulled_mm": 44,
                "finished_mm": 13,
                "scale_pile": True,
            },
            8,
        ),
        ({"role": "padding", "thickness_mm": 2, "firmness": "soft"}, 8),
    ],
)
def test_doubling_every_length(layer, times):
    one = {"parts": [part(layers=[{**layer, "fibre": "x"}])]}
    assert grams({**one, "scale": 2}) == pytest.approx(times * grams(one))


def test_wire_gets_longer_not_thicker():
    shape = {"kind": "wrap", "length_mm": 78, "diameter_mm": 10, "wire_mm": 1}
    found = estimate({"scale": 2, "parts": [part(shape, allowance=0)]}).parts[0]
    assert found.volume_mm3 == pytest.approx(math.pi / 4 * (400 - 1) * 156)


@given(st.floats(0, 1), st.floats(0.1, 5))
def test_a_layers_range_is_lognormal(sigma, bias):
    found = estimate({"sigma": sigma, "bias": bias, "parts": [part()]}).parts[0].layers[0].grams
    assert found.p90 / found.p50 == pytest.approx(math.exp(1.2816 * sigma))
    assert found.p50 / found.p10 == pytest.approx(math.exp(1.2816 * sigma))


def test_sums_are_between_independent_and_one_hand():
    # twelve equal layers: the sum's spread lies between 0.25/√12 (independent) and 0.25 (one error for all)
    found = estimate({"parts": [part() for _ in range(12)]}).all
    spread = math.log(found.p90 / found.p50) / 1.2816
    assert 0.25 / math.sqrt(12) < spread < 0.25


def test_a_sum_agrees_with_simulation():
    rng = np.random.default_rng(1)
    sizes = [30, 12, 20, 44, 8]
    found = estimate({"parts": [part({"kind": "sphere", "diameter_mm": d}) for d in sizes], "sigma": 0.3})
    middles = np.array([p.layers[0].middle for p in found.parts])
    errors = 0.3 * (
        math.sqrt(0.5) * rng.standard_normal((200_000, 1)) + math.sqrt(0.5) * rng.standard_normal((200_000, 5))
    )
    sums = (middles * np.exp(errors)).sum(axis=1)
    assert found.all.p50 == pytest.approx(np.median(sums), rel=0.01)
    assert found.all.p90 == pytest.approx(np.quantile(sums, 0.9), rel=0.02)
    assert found.all.p10 == pytest.approx(np.quantile(sums, 0.1), rel=0.02)


def test_nothing_takes_nothing():
    assert estimate({"parts": []}).all.p50 == 0
    assert total([]).p90 == 0


# the demo figures' sums by the same rules, where no cover shows through and no padding is taken off
@pytest.mark.parametrize(
    ("name", "fibre", "asked"),
    [
        ("Snail", "core", 2.33), ("Snail", "oat", 1.45), ("Octopus", "core", 9.32), ("Heron", "core", 7.30),
        ("Heron", "fog", 2.18), ("Hedgehog", "peat", 3.94), ("Hedgehog", "core", 13.06), ("Hermit crab", "rust", 3.75),
        ("Hermit crab", "filling", 3.75), ("Lighthouse", "core", 18.58), ("Lighthouse", "slate", 9.86),
    ],
)  # fmt: skip
def test_the_demo_figures_take_what_they_should(name, fibre, asked):
    figure = next(each for each in FIGURES if each.name == name)
    parts = []
    for each in figure.parts:
        layers = [{key: value for key, value in layer.items() if key != "slot"} for layer in each.layers]
        for layer, given_ in zip(layers, each.layers, strict=True):
            layer["fibre"] = figure.slots[given_["slot"]]
            if layer["role"] in ("cover", "detail"):
                layer |= SHOW
        row = {"name": each.name, "count": each.count, "shape": each.shape, "visible": each.visible, "layers": layers}
        parts.append({**row, **({"firmness": each.firmness} if each.firmness else {})})
    layers = [layer for each in estimate({"parts": parts}).parts for layer in each.layers]
    assert sum(layer.middle for layer in layers if layer.fibre == fibre) == pytest.approx(asked, abs=0.011)
