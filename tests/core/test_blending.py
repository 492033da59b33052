"""What blends look like, and the best of them for a colour, against everything that can be tried."""

import json
import tracemalloc
from itertools import combinations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.__main__ import answer
from wembit.core.colour.basis import WEIGHTS
from wembit.core.colour.conversions import lab, ratios, xyz_rows_to_lab, xyz_to_lab
from wembit.core.colour.difference import delta_e_2000, differences
from wembit.core.colour.mixing_lots import MixingLots, ratios_of
from wembit.core.colour.mixture import blend, f, reflectance, slope
from wembit.core.colour.recovery import curves
from wembit.core.colour.search.blending import blends, recipes

HEX = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}")
SHELF = ["#6f7d43", "#2f5a73", "#c8a06a", "#8b2f2a", "#e8e2d0", "#24211f", "#d98c3f", "#4d6b3a"]


def curve(srgb):
    return curves(np.array([ratios(srgb)]))[0][0]


def seen(reflectances):
    return np.array(xyz_to_lab(WEIGHTS @ reflectances))


def palette(colours, grams=None):
    return MixingLots.of(
        [
            {"id": f"{n:03}", "srgb": c, "grams": g}
            for n, (c, g) in enumerate(zip(colours, grams or [None] * len(colours), strict=True))
        ]
    )


def brute(target, shelf, grams, fibres, parts, limit=1):
    """The least differences of all recipes there are, as many as are asked for; infinite where there are none."""
    wanted, off = np.array(xyz_to_lab(target)), [np.array([])]
    for count in range(1, min(fibres, parts, len(shelf.ids)) + 1):
        shares = recipes(count, parts) / recipes(count, parts).sum(axis=1, keepdims=True)
        for lots in combinations(range(len(shelf.ids)), count):
            good = shares[(shares * grams <= shelf.grams[list(lots)] + 1e-9).all(axis=1)]
            if len(good):
                mixed = reflectance(good @ shelf.mixing[list(lots)]) @ WEIGHTS.T
                off.append(differences(xyz_rows_to_lab(mixed), wanted))
    return np.sort(np.concatenate(off))[:limit]


# --- the mixture ------------------------------------------------------------------------------------------------------


def test_the_additive_function_is_that_of_the_paper():
    # Stearns & Noechel (1944): f(R) = (1 − R) / (M(R − 0.01) + 0.01), M = 0.15; f is 0 at white and 99 at R = 0.01
    assert f(np.array([1.0, 0.01])) == pytest.approx([0, 99])
    assert f(np.array(0.5)) == pytest.approx(0.5 / (0.15 * 0.49 + 0.01))


@given(st.floats(0.001, 0.999))
def test_reflectance_undoes_the_additive_function(r):
    assert reflectance(f(np.array(r))) == pytest.approx(r)
    step = 1e-5
    mixed = f(np.array(r))
    assert slope(mixed) == pytest.approx((reflectance(mixed + step) - reflectance(mixed - step)) / (2 * step), rel=1e-4)


@given(HEX, HEX, st.integers(1, 9), st.integers(1, 9))
def test_order_and_scale_of_the_masses_change_nothing_and_one_alone_is_itself(one, two, a, b):
    pair = np.array([curve(one), curve(two)])
    mixed = blend(pair, [a, b])
    assert mixed == pytest.approx(blend(pair[::-1], [b, a]), abs=1e-12)
    assert mixed == pytest.approx(blend(pair, [a * 7, b * 7]), abs=1e-12)
    assert blend(pair[:1], [a]) == pytest.approx(pair[0], abs=1e-12)
    assert (mixed >= pair.min(axis=0) - 1e-12).all()
    assert (mixed <= pair.max(axis=0) + 1e-12).all()


def test_a_grey_of_black_and_white_wool_is_darker_than_the_mean_of_their_lightness():
    black, white = "#24211f", "#f2efe6"
    grey = seen(blend(np.array([curve(black), curve(white)]), [1, 1]))
    assert grey[0] < (lab(black)[0] + lab(white)[0]) / 2 - 5


def test_yellow_and_blue_wool_make_a_green_not_a_grey():
    _light, a, b = seen(blend(np.array([curve("#e3c23a"), curve("#2f5a93")]), [1, 1]))
    assert a < -8
    assert b > 0


# --- the search -------------------------------------------------------------------------------------------------------


@settings(max_examples=25)
@given(st.data())
def test_each_recipe_is_the_best_for_its_rank_to_a_tenth(data):
    colours = data.draw(st.lists(HEX, min_size=1, max_size=8))
    grams = [data.draw(st.none() | st.floats(0, 10)) for _ in colours]
    fibres, parts = data.draw(st.integers(1, 4)), data.draw(st.integers(1, 8))
    target, shelf = ratios(data.draw(HEX)), palette(colours, grams)
    limit = data.draw(st.integers(1, 30))
    found = blends(target, shelf, 6, max_fibres=fibres, parts=parts, limit=limit)
    least = brute(target, shelf, 6, fibres, parts, limit)
    assert len(found) == len(least)
    assert all(each.de00 <= best + 0.1 for each, best in zip(found, least, strict=True))
    for each in found:
        assert len(each.parts) <= fibres
        assert sum(each.parts) <= parts
        assert np.gcd.reduce(each.parts) == 1
        shares = np.array(each.parts) / sum(each.parts)
        assert (shares * 6 <= shelf.grams[list(each.indices)] + 1e-6).all()
        really = seen(reflectance(shares @ shelf.mixing[list(each.indices)]))
        assert each.de00 == pytest.approx(delta_e_2000(tuple(really), xyz_to_lab(target)), abs=1e-6)
        assert sum(each.weighed(6)) == pytest.approx(6, abs=0.01 * len(each.parts))
        assert all(give <= shelf.grams[index] + 1e-9 for give, index in zip(each.weighed(6), each.indices, strict=True))
        named = [(-parts, shelf.ids[index]) for parts, index in zip(each.parts, each.indices, strict=True)]
        assert named == sorted(named), "most parts first, then by the ids"
    assert [round(each.de00, 5) for each in found] == sorted(round(each.de00, 5) for each in found)


@pytest.mark.sampled("shelves of thirty", 1)
@pytest.mark.parametrize("seed", range(3))
def test_a_shelf_of_thirty_is_searched_as_if_all_had_been_tried(seed):
    chance = np.random.default_rng(seed)
    shelf = palette([f"#{n:06x}" for n in chance.integers(0, 0xFFFFFF, 30)], chance.uniform(0, 12, 30).tolist())
    target = ratios(f"#{chance.integers(0, 0xFFFFFF):06x}")
    found = [each.de00 for each in blends(target, shelf, 6, limit=20)]
    assert (np.array(found) <= brute(target, shelf, 6, 3, 8, 20) + 0.1).all()


def test_the_few_recipes_of_two_greys_are_all_there():
    shelf = palette(["#000000", "#858585"])
    assert len(blends(ratios("#808080"), shelf, 6, limit=50)) == 23  # two alone, and 21 pairs in at most eight parts


def test_three_bags_that_only_just_hold_their_part_are_not_asked_for_more():
    shelf = palette(["#c02020", "#20c020", "#2020c0"], [3.335] * 3)
    mixed = WEIGHTS @ reflectance(shelf.mixing.mean(axis=0))
    best = blends(mixed, shelf, 10)[0]
    assert best.parts == (1, 1, 1)
    assert max(best.weighed(10)) <= 3.335
    assert sum(best.weighed(10)) == pytest.approx(10, abs=0.011)


def test_bags_of_one_colour_come_by_their_ids_and_the_first_that_hold_enough():
    lots = [{"id": f"{n:04}", "srgb": "#6f7d43", "grams": 2 + (n % 7 == 0) * 9} for n in range(900, 0, -1)]
    first = blends(ratios("#6f7d43"), MixingLots.of(lots), 10, limit=3, max_fibres=4, parts=16)
    assert [[lots[index]["id"] for index in each.indices] for each in first] == [["0007"], ["0014"], ["0021"]]


@pytest.mark.whole
@pytest.mark.parametrize("spread", [0, 0.3, 20])
def test_memory_is_bounded_however_alike_the_lots_are(spread):
    chance = np.random.default_rng(1)
    labs = np.array([50, 5, 5]) + chance.uniform(-spread, spread, (5000, 3)) * (0.5, 1, 1)
    shelf = MixingLots.of([{"id": f"{n}", "lab": each} for n, each in enumerate(labs.tolist())])
    tracemalloc.start()
    blends(ratios("#888170"), shelf, 10, max_fibres=4, parts=16)
    most = tracemalloc.get_traced_memory()[1]
    tracemalloc.stop()
    assert most < 400e6


def test_only_mixes_are_named_where_only_those_are_asked_for():
    shelf = palette(SHELF)
    found = blends(ratios(SHELF[0]), shelf, 6, least_fibres=2, limit=4)
    assert all(len(each.parts) > 1 for each in found)
    alone = [each.de00 for each in blends(ratios(SHELF[0]), shelf, 6, limit=40) if len(each.parts) > 1]
    assert [each.de00 for each in found] == pytest.approx(alone[:4], abs=0.1)


LARGEST = [pytest.param(2000, fibres, marks=pytest.mark.whole) for fibres in (2, 3)]


@pytest.mark.sampled("large shelves", 2)
@pytest.mark.parametrize(("count", "fibres"), [(60, 3), (200, 3), (500, 3), (40, 4), *LARGEST])
def test_a_blend_of_a_large_shelf_is_found_again(count, fibres):
    """A colour that some lots make exactly is there to be found, or another as near."""
    for seed in range(8):
        chance = np.random.default_rng(seed)
        shelf = palette([f"#{n:06x}" for n in chance.integers(0, 0xFFFFFF, count)])
        lots = chance.choice(count, fibres, replace=False)
        parts = recipes(fibres, 8)[chance.integers(len(recipes(fibres, 8)))]
        target = WEIGHTS @ reflectance(parts / parts.sum() @ shelf.mixing[lots])
        assert blends(target, shelf, 6, max_fibres=fibres)[0].de00 <= 0.1


def test_what_a_lot_cannot_give_is_not_asked_of_it():
    moss, found = "#6f7d43", {}
    for grams in (0.5, 20):
        shelf = palette([moss, *SHELF[1:]], [grams] + [None] * 7)
        found[grams] = blends(ratios(moss), shelf, 6)[0]
    assert found[20].indices == (0,)
    assert found[20].mottle == 0
    assert found[20].de00 < 1e-6
    assert found[0.5].indices != (0,)
    assert not blends(ratios(moss), palette(SHELF, [0.0] * 8), 6)


def test_lots_that_can_only_give_together_are_still_a_recipe():
    found = blends(ratios("#6f7d43"), palette(["#6f7d43", "#6f7d42"], [3.0, 3.0]), 6)
    assert [each.parts for each in found] == [(1, 1)]


# --- by the command line ----------------------------------------------------------------------------------------------


def ask(verb, **request):
    return answer(verb, json.dumps(request).encode())


def test_match_names_the_nearest_first_and_ties_by_id():
    lots = [{"id": "b", "srgb": "#6f7d43"}, {"id": "a", "srgb": "#6F7D43"}, {"id": "c", "lab": [50, 0, 0]}]
    found = ask("match", target={"srgb": "#6f7d43"}, lots=lots, limit=2)["singles"]
    assert [each["id"] for each in found] == ["a", "b"]
    assert found[0]["words"] == "same to the eye"


def test_a_target_may_be_a_curve_or_a_colour_that_no_curve_reaches():
    lots = [{"id": wool, "srgb": wool} for wool in SHELF]
    flat = ask("blend", target={"reflectance": [0.4] * 36}, lots=lots, grams=6)
    assert flat["blends"]
    assert flat["singles"][0]["de00"] > 0
    far = ask("blend", target={"lab": [50, 150, -150]}, lots=lots, grams=6)
    assert far["blends"][0]["words"] == "another colour"


def test_blend_answers_as_the_contract_says():
    lots = [{"id": wool, "srgb": wool, "grams": 4} for wool in SHELF]
    found = ask("blend", target={"srgb": "#59703f"}, lots=lots, grams=5, parts=5, limit=3)
    assert len(found["singles"]) == 3
    assert 0 < len(found["blends"]) <= 3
    for row in found["blends"]:
        assert set(row) == {"recipe", "lab", "srgb", "de00", "mottle", "words"}
        assert sum(each["grams"] for each in row["recipe"]) == pytest.approx(5)
        assert sum(each["parts"] for each in row["recipe"]) <= 5
        assert len(row["recipe"]) > 1, "no lot has five grams"
        assert row["mottle"] == pytest.approx(
            max(delta_e_2000(lab(a["id"]), lab(b["id"])) for a, b in combinations(row["recipe"], 2)), abs=0.01
        )


def test_a_lot_of_a_curve_is_seen_as_that_curve():
    shelf = MixingLots.of([{"id": "x", "reflectance": [0.2 + n / 100 for n in range(36)]}])
    assert shelf.labs[0] == pytest.approx(xyz_to_lab(ratios_of({"reflectance": [0.2 + n / 100 for n in range(36)]})))
