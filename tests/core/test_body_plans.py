"""Bodies to begin from: closed, on their feet, no part adrift, as heavy as the trade expects; proportions of any figure."""

from dataclasses import astuple
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.body_plans.every_plan import PLANS
from wembit.core.body_plans.plan import HIGH, LONG, stored
from wembit.core.body_plans.proportions import (
    MOST,
    PROPORTIONS,
    STEP,
    at_size,
    extent,
    natural,
    proportioned,
    proportioned_and_extent,
    proportions_of,
    touching,
)
from wembit.core.colour.show_through import hiding_power
from wembit.core.contract.requests import SHAPE
from wembit.core.craft.armature import WIRE
from wembit.core.craft.materials import FIRMNESS
from wembit.core.grams.details import area_mm2
from wembit.core.grams.estimate import estimate
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.pose.skin import inside, skin_points
from wembit.core.shape.solids import Nothing, solid
from wembit.demo.figures import FIGURES

KEYS = sorted(PLANS)
# What felters expect of a whole figure by its longest extent in cm, in grams; written before the plans were weighed, the
# house's upper end after it (a box of felt weighs nearly as much as a ball). Common practice: a firm ball of 5 cm takes
# 8–16 g, of 10 cm 60–125; what is compact less, what has limbs a fifth, what is thin hardly anything; twice as long is about
# eight times the wool.
BALL = {5: (8, 16), 10: (60, 125), 20: (480, 1000), 40: (3800, 8000)}
COMPACT = {5: (1, 12), 10: (8, 90), 20: (60, 720), 40: (480, 5800)}
LIMBED = {5: (0.3, 4), 10: (2, 25), 20: (14, 200), 40: (100, 1600)}
THIN = {5: (0.05, 2), 10: (0.3, 14), 20: (2, 110), 40: (14, 850)}
EXPECTED = {
    **dict.fromkeys(("ball",), BALL),
    **dict.fromkeys(
        ("egg", "dome", "house", "octopus", "mushroom", "tower", "tree", "cone", "snail", "beetle"), COMPACT
    ),
    **dict.fromkeys(
        ("standing", "sitting", "lying", "climbing", "newt", "perched", "person", "fish", "heart", "star", "letters"),
        LIMBED,
    ),
    **dict.fromkeys(("leaf", "flower", "spider", "snake", "wading", "flying", "jelly"), THIN),
}


def parts_of(key):
    return natural(PLANS[key])


def pieces_of(parts):
    return place(
        [PlacedPart(p["key"], p["count"], solid(SHAPE(p["shape"], "shape")), Seat.of(p["seat"])) for p in parts]
    )


def grams(plan, parts):
    rows = []
    for part in parts:
        shape, seat = solid(SHAPE(part["shape"], "shape")), Seat.of(part["seat"])
        layers = []
        for layer in part["layers"]:
            row = {"role": layer["role"], "fibre": layer["slot"]}
            if layer["role"] == "detail":
                row["area_mm2"] = area_mm2(layer["rule"], shape, seat, 0.5)
            else:
                row |= {key: value for key, value in layer["rule"].items() if key != "along"}
            if layer["role"] in ("cover", "detail"):
                colour = plan.colours[layer["slot"]]
                row |= {
                    "micron_um": 22,
                    "srgb": colour,
                    "over": plan.colours.get("core", colour),
                    "tau": hiding_power(colour),
                }
            layers.append(row)
        row = {"name": part["name"], "count": part["count"], "shape": part["shape"], "layers": layers}
        rows.append(row | ({"firmness": part["firmness"]} if part["firmness"] else {}))
    return estimate({"parts": rows}).all.p50


@pytest.mark.parametrize("key", KEYS)
def test_a_plan_says_all_that_a_figure_needs(key):
    plan = PLANS[key]
    assert plan.measure in (LONG, HIGH)
    parts = stored(plan.parts)
    assert len({part["key"] for part in parts}) == len(parts)
    assert [part["seat"]["on"] for part in parts].count(None) == 1
    named = {layer["slot"] for part in parts for layer in part["layers"]}
    assert named == set(plan.colours), "every slot has a colour, and is used"
    assert all(part["firmness"] in FIRMNESS for part in parts if part["shape"]["kind"] != "none")
    assert {part.name for part in plan.parts} >= set(plan.feet)
    assert "core" not in plan.colours or next(iter(plan.colours)) == "core"
    assert all(value in ("", WIRE) for part in parts for value in [part["armature"].get("kind", "")])


@pytest.mark.parametrize("key", KEYS)
def test_no_part_is_adrift(key):
    """Each piece reaches into, or at least touches, what it sits on."""
    for piece in pieces_of(parts_of(key)):
        if piece.host is None or isinstance(piece.part.shape, Nothing):
            continue
        points = skin_points(piece)[0]
        hidden = inside(piece.host, points).any()
        near = inside(piece.host, piece.joints[0][None])[0]
        flat = abs(points[:, 2].min() - skin_points(piece.host)[0][:, 2].max()) < 1.5  # stands on it
        assert hidden or near or flat, piece.name


@pytest.mark.parametrize("key", KEYS)
def test_it_stands_on_the_ground(key):
    parts = parts_of(key)
    assert extent(parts).lowest == pytest.approx(0, abs=0.01)
    named = {part["key"] for part in parts if part["name"] in PLANS[key].feet}
    assert named <= touching(parts).keys()


@pytest.mark.parametrize("key", KEYS)
def test_it_takes_what_the_trade_expects_of_its_size(key):
    plan, parts = PLANS[key], parts_of(key)
    found = extent(parts)
    long = max(found.long, found.broad, found.high)
    for cm, (least, most) in EXPECTED[key].items():
        assert least <= grams(plan, at_size(parts, 10 * cm / long)) <= most, cm


@pytest.mark.sampled("proportions of bodies", 8)
@pytest.mark.parametrize("key", KEYS)
def test_every_proportion_goes_the_way_that_it_says(key):
    parts = parts_of(key)
    for each in proportions_of(parts):
        sizes = []
        for steps in (-MOST, -1, 0, 2, MOST):
            changed, found = proportioned_and_extent(parts, {each.key: steps})
            assert astuple(found) == pytest.approx(astuple(extent(changed)), abs=0.01), "as they stand, measured anew"
            assert extent(changed).lowest == pytest.approx(0, abs=0.01)
            if len(touching(parts)) > 1:
                assert touching(parts).keys() <= touching(changed).keys(), "what stood on the ground stands on it"
            first = next(part for part in changed if part["kind"] in each.kinds)
            shape = solid(SHAPE(first["shape"], "shape"))
            sizes.append(shape.volume)
        assert all(one < two + 1e-9 for one, two in pairwise(sizes)), each.key
        assert sizes[0] < sizes[-1], each.key


def test_a_larger_head_takes_along_what_sits_on_it():
    parts = parts_of("standing")
    changed = {part["key"]: part for part in proportioned(parts, {"head": 2})}
    before = {part["key"]: part for part in parts}
    for key in ("head", "snout", "ear", "nose"):
        one, two = (solid(SHAPE(rows[key]["shape"], "shape")).volume for rows in (before, changed))
        assert two == pytest.approx(one * STEP**6)
    assert changed["eye"]["seat"]["bead_mm"] == pytest.approx(4 * STEP**2)
    assert changed["foreleg"]["shape"] == before["foreleg"]["shape"]


def test_nothing_changes_without_a_step():
    for key in KEYS:
        parts = parts_of(key)
        again = proportioned(parts, {})
        for one, two in zip(parts, again, strict=True):
            assert one["shape"] == two["shape"]
            assert one["seat"].get("centre_mm", 0) == pytest.approx(two["seat"].get("centre_mm", 0), abs=1e-6)


@given(st.sampled_from(KEYS), st.floats(0.3, 3))
def test_every_length_grows_alike(key, times):
    parts = parts_of(key)
    before, after = extent(parts), extent(at_size(parts, times))
    rings = any(part["shape"]["kind"] == "wrap" for part in parts)  # wire stays as thick as it is
    for one, two in zip((before.long, before.broad, before.high), (after.long, after.broad, after.high), strict=True):
        assert two == pytest.approx(one * times, rel=0.02 if rings else 1e-6)


@pytest.mark.sampled("proportions of the demo", 3)
@pytest.mark.parametrize("figure", FIGURES, ids=lambda figure: figure.name)
def test_the_demo_goes_through_every_proportion(figure):
    parts = stored(figure.parts)
    assert {each.key for each in proportions_of(parts)} <= {each.key for each in PROPORTIONS}
    for each in proportions_of(parts):
        for steps in (-MOST, MOST):
            assert extent(proportioned(parts, {each.key: steps})).lowest == pytest.approx(0, abs=0.01)
