"""Sizes backwards: from a finished length, from the wool there is."""

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from tests.core.test_estimate import demo_request
from wembit.core.errors import BadInput
from wembit.core.grams.estimate import estimate
from wembit.core.grams.largest_scale import LARGEST, TooLittle, largest, scale_for
from wembit.demo.figures import FIGURES

BY_NAME = {figure.name: demo_request(figure) for figure in FIGURES}


def ball(grams_of="a"):
    return {
        "parts": [{"name": "p", "shape": {"kind": "sphere", "diameter_mm": 30}, "firmness": "medium",
                   "layers": [{"role": "core", "fibre": grams_of}]}]
    }  # fmt: skip


def test_eight_times_the_wool_is_twice_the_size():
    once = estimate(ball()).totals["a"].p50
    found = largest(ball(), {"a": 8 * once})
    assert found.scale == pytest.approx(2, rel=1e-4)
    assert found.fibre == "a"


def test_a_body_half_as_long_again_takes_34_tenths():
    # solids × 3.4 for × 1.5 in length  # common practice
    assert scale_for(100, 1, 150) == 1.5
    assert estimate({**ball(), "scale": 1.5}).all.p50 / estimate(ball()).all.p50 == pytest.approx(3.4, abs=0.03)


@settings(max_examples=30)
@given(st.sampled_from(sorted(BY_NAME)), st.floats(0.7, 3), st.sampled_from(["p50", "p90"]))
def test_backwards_and_forwards_agree(name, scale, odds):
    """What a figure takes at a scale is enough for just that scale, to 0.1 %."""
    request = BY_NAME[name]
    try:
        totals = estimate({**request, "scale": scale}).totals
    except BadInput:
        assume(False)
    there = {fibre: getattr(grams, odds) for fibre, grams in totals.items()}
    assert largest(request, there, odds=odds).scale == pytest.approx(scale, rel=1e-3)


@settings(max_examples=30)
@given(st.sampled_from(sorted(BY_NAME)), st.data())
def test_the_fibre_that_limits_is_used_up_and_no_other_is_exceeded(name, data):
    request = BY_NAME[name]
    there = {fibre: data.draw(st.floats(3, 60)) for fibre in estimate(request).totals}
    try:
        found = largest(request, there)
    except TooLittle:
        return
    totals = estimate({**request, "scale": found.scale}).totals
    if found.fibre:
        assert totals[found.fibre].p50 == pytest.approx(there[found.fibre], rel=1e-3)
    assert all(totals[fibre].p50 <= there[fibre] * 1.001 for fibre in there)


def test_fibres_not_named_are_unlimited():
    figure = BY_NAME["Hedgehog"]
    takes = estimate(figure).totals
    assert largest(figure, {"peat": takes["peat"].p50}).scale == pytest.approx(1, rel=1e-3)
    assert largest(figure, {"something else": 1.0}).fibre is None
    assert largest(figure, {}).scale == LARGEST


def test_too_little_names_the_fibre():
    with pytest.raises(TooLittle) as told:
        largest(ball(), {"a": 0.0})
    assert told.value.fibre == "a"
    heron = BY_NAME["Heron"]  # its wires do not get thinner: below some size nothing fits round them
    with pytest.raises(TooLittle) as told:
        largest(heron, {"straw": 0.005})
    assert told.value.fibre == "straw"
    assert told.value.takes_g > 0.005
