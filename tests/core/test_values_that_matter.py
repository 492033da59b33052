"""Single numbers of the rules, each against its source or a worked example: a change of one of them is seen here."""

import datetime as dt
import math

import numpy as np
import pytest

from wembit.core.colour.difference import in_words, mottle_in_words
from wembit.core.grams.details import area_mm2, evenly, kind_of
from wembit.core.grams.estimate import LayerGrams, estimate, total
from wembit.core.pose.balance import standing
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.pose.skin import border_mm, loose_end_mm3, visible_shares
from wembit.core.shape.solids import Box, Capsule, Cylinder, Slab, Sphere, Torus, Wrap
from wembit.core.stock.allocation import Demand, FreeLot, allocate
from wembit.core.stock.forecast import Dated, Fibre, futures
from wembit.core.stock.packs import cheapest
from wembit.core.stock.standing_in import Trouble
from wembit.core.units import Disagree, Hand, length, share, weight

TODAY = dt.date(2026, 11, 25)


# --- grams ----------------------------------------------------------------------------------------------------------


def layer(middle: float, sigma: float) -> LayerGrams:
    return LayerGrams("core", "f", middle, 1.0, sigma, None, None, False)


@pytest.mark.parametrize(("weights", "sigmas"), [((3, 5), (0.25, 0.25)), ((1, 2, 4), (0.1, 0.3, 0.5))])
def test_a_sum_is_matched_to_the_mean_and_variance_of_correlated_lognormals(weights, sigmas):
    # Fenton, IRE Trans. Communications Systems 8 (1960) 57–67: match mean and variance; log errors correlate 0.5
    found = total([layer(weight, sigma) for weight, sigma in zip(weights, sigmas, strict=True)])
    means = [weight * math.exp(sigma**2 / 2) for weight, sigma in zip(weights, sigmas, strict=True)]
    variance = sum(
        means[i] * means[j] * math.expm1((1.0 if i == j else 0.5) * sigmas[i] * sigmas[j])
        for i in range(len(means))
        for j in range(len(means))
    )
    spread = math.sqrt(math.log1p(variance / sum(means) ** 2))
    assert found.p50 == pytest.approx(sum(means) * math.exp(-(spread**2) / 2))
    assert found.p90 / found.p50 == pytest.approx(math.exp(1.2816 * spread), rel=1e-4)


def ball(**more) -> dict:
    layers = [{"role": "core", "fibre": "a"}, {"role": "weighed", "fibre": "b", "grams": 1, **more.pop("inner", {})}]
    shape = {"kind": "sphere", "diameter_mm": 30}
    return {"name": "ball", "shape": shape, "firmness": "firm", "layers": layers, **more}


def test_the_innermost_bias_and_sigma_hold():
    request = {"bias": 2, "sigma": 0.4, "parts": [ball(bias=3, sigma=0.3, inner={"bias": 5, "sigma": 0.1}), ball()]}
    (own, inner), (outer, _) = (part.layers for part in estimate(request).parts)
    assert (own.bias, own.sigma) == (3, 0.3)
    assert (inner.bias, inner.sigma) == (5, 0.1)
    assert (outer.bias, outer.sigma) == (2, 0.4)
    assert own.grams.p50 / outer.grams.p50 == pytest.approx(1.5)
    assert own.grams.p90 / own.grams.p50 == pytest.approx(math.exp(1.2816 * 0.3), rel=1e-4)


def test_trimmings_are_a_share_of_what_is_planted_bias_and_all():
    coat = {"role": "coat", "fibre": "a", "row_spacing_mm": 6, "grams_per_cm": 0.04, "pulled_mm": 40, "finished_mm": 15}
    part = {"name": "b", "shape": {"kind": "sphere", "diameter_mm": 60}, "firmness": "firm", "layers": [coat]}
    (found,) = estimate({"bias": 1.3, "parts": [part]}).parts[0].layers
    assert found.trimmed_g == pytest.approx(found.grams.p50 * (1 - 15 / 20))
    assert found.grams.p50 == pytest.approx(math.pi * 3600 / 6 / 10 * 0.04 * 1.08 * 1.3)


@pytest.mark.parametrize(
    ("rule", "area", "kind"),
    [
        ({"spots": 4, "across_mm": 6}, 4 * math.pi * 9, "spots"),
        ({"line_mm": 40, "width_mm": 2.5}, 100, "line"),
        ({"border_mm": 3, "part": 0.5}, math.pi * 40 * 3 * 0.5, "border"),
        ({"area_mm2": 77}, 77, "patch"),
    ],
)
def test_details_are_areas(rule, area, kind):
    assert kind_of(rule) == kind
    assert area_mm2(rule, Sphere(40), Seat(), 0.5) == pytest.approx(area, rel=2e-3)


def test_spots_lie_evenly_in_a_row_and_on_a_ring():
    assert evenly(3, "row", angle=90) == ((0.25, 90), (0.5, 90), (0.75, 90))
    assert evenly(4, "ring", t=0.3, angle=10) == ((0.3, 10), (0.3, 100), (0.3, 190), (0.3, 280))


# --- joins ----------------------------------------------------------------------------------------------------------


def test_flat_ends_that_meet_hide_each_other():
    # two cylinders of one width end to end: each loses one end, π·r² of 2·π·r² + 2·π·r·l
    seat = Seat(on="low", t=1, angle=None)
    parts = [
        PlacedPart("low", 1, Cylinder(20, 30), Seat(centre_mm=15, pitch=90)),
        PlacedPart("up", 1, Cylinder(20, 30), seat),
    ]
    hidden = 100 / (2 * 100 + 20 * 30)
    assert visible_shares(place(parts)) == pytest.approx({"low": 1 - hidden, "up": 1 - hidden}, abs=0.01)


def test_the_border_of_a_flat_piece_runs_along_both_faces():
    slab = Slab(((0, -20), (50, -1), (50, 1), (0, 20)), 4)
    for around in (0.02, 0.25, 0.5, 0.98):  # near an edge, too: it runs straight
        assert border_mm(slab, Seat(), around) == pytest.approx(100, rel=1e-3)
    assert border_mm(slab, Seat(), 0.0) == border_mm(slab, Seat(), 1.0) == 0


@pytest.mark.parametrize(
    ("shape", "seat", "section"),
    [
        (Cylinder(10, 40), Seat(on="b"), math.pi * 25),
        (Box(40, 8, 6), Seat(on="b"), 48),
        (Wrap(40, 10, 2), Seat(on="b"), math.pi * 24),
        (Slab(((0, -9), (40, -9), (40, 9), (0, 9)), 3), Seat(on="b"), 54),
        (Torus(40, 8), Seat(on="b"), 0),
        (Cylinder(10, 40), Seat(), 0),
        (Capsule(10, 40), Seat(on="b", sink_mm=100), math.pi * 25),
    ],
    ids=["cylinder", "box", "wound", "slab", "ring", "root", "sunk deep"],
)
def test_a_loose_end_is_as_long_as_it_is_kept_and_as_thick_as_the_part_there(shape, seat, section):
    assert loose_end_mm3(shape, seat, 12) == pytest.approx(12 * section, rel=1e-3)
    assert loose_end_mm3(shape, seat, 0) == 0


def leaning(over_mm: float):
    """A light foot of 40 mm on the ground, and a heavy ball whose middle is so far in front of its middle."""
    foot = PlacedPart("foot", 1, Box(40, 40, 10), Seat(centre_mm=5))
    ball = PlacedPart("ball", 1, Sphere(20), Seat(on="foot", t=0.5 + over_mm / 40, angle=0, by=0.5))
    return standing(place([foot, ball]), {"foot": 0.001, "ball": 100})


def test_a_figure_stands_while_its_weight_is_over_its_feet():
    assert leaning(0).margin_mm == pytest.approx(21, abs=0.2)
    assert leaning(0).stands
    assert leaning(15).margin_mm == pytest.approx(6, abs=0.2)
    wide = standing(place([PlacedPart("ball", 1, Sphere(40), Seat(centre_mm=20))]), {"ball": 5})
    assert wide.stands and wide.margin_mm < 10, "a ball touches with what lies within 2 mm of the ground"
    assert standing([], {}) is None


def test_a_figure_tips_the_way_its_weight_hangs_over():
    foot = PlacedPart("foot", 1, Box(20, 20, 10), Seat(centre_mm=5))
    arm = PlacedPart("arm", 1, Box(80, 4, 4), Seat(on="foot", t=0.5, angle=0, by=0.5))
    ball = PlacedPart("ball", 1, Sphere(10), Seat(on="arm", t=1, angle=0, by=0.5))
    over = standing(place([foot, arm, ball]), {"foot": 0.001, "ball": 100})
    assert over.margin_mm == pytest.approx(-29, abs=0.3)
    assert not over.stands
    assert over.way == "forward"
    back = standing(
        place([foot, arm, PlacedPart("ball", 1, Sphere(10), Seat(on="arm", t=0, angle=0, by=0.5))]), {"ball": 9}
    )
    assert back.way == "backward"
    assert back.margin_mm == pytest.approx(-29, abs=0.3)


# --- stock ----------------------------------------------------------------------------------------------------------


def taken(lots, grams) -> dict:
    found = allocate([FreeLot(*lot) for lot in lots], [Demand("d", TODAY, "f", grams)])
    return {reservation.lot: reservation.grams for reservation in found.reservations}


def test_no_crumb_is_left_where_another_bag_serves():
    assert taken([("tight", "f", 11.0), ("wide", "f", 15.0)], 10) == {"wide": 10}
    assert taken([("exact", "f", 10.0), ("wide", "f", 15.0)], 10) == {"exact": 10}
    assert taken([("tight", "f", 12.0), ("wide", "f", 15.0)], 10) == {"tight": 10}, "2 g are no crumb"


def test_an_opened_bag_goes_before_a_whole_one_and_one_bag_before_two():
    assert taken([("whole", "f", 20.0, "a"), ("open", "f", 30.0, "b", True)], 10) == {"open": 10}
    assert taken([("one", "f", 6.0, "a"), ("two", "f", 6.0, "a"), ("big", "f", 40.0, "b")], 10) == {"big": 10}


def test_where_no_dye_lot_is_enough_the_fullest_goes_first():
    assert taken([("a", "f", 3.0), ("b", "f", 8.0), ("c", "f", 5.0)], 12) == {"b": 8, "c": 4}


def test_dye_lots_stay_together():
    lots = [("a1", "f", 6.0, "a"), ("b1", "f", 7.0, "b"), ("a2", "f", 6.0, "a")]
    assert set(taken(lots, 10)) == {"a1", "a2"}


def test_lead_days_are_whole_days_rounded_up():
    fibre = Fibre(5, [Dated(TODAY + dt.timedelta(30), 10)], lead_days=4.2, packs=[(50.0, 4.9)])
    found = futures(TODAY, [fibre])[0].outlook
    assert found.runs_out == TODAY + dt.timedelta(30)
    assert found.order_by == TODAY + dt.timedelta(25)


def test_of_two_offers_of_one_pack_the_cheaper_counts():
    assert cheapest(40, [(50, 9.0), (50, 5.0), (50, 7.0)]).cost == 5.0


WEIGHTS = {
    "other_form": 2.0, "other_breed": 0.7, "other_felting": 0.8, "micron_um": 0.15, "days": 0.25, "days_late": 2.0,
    "cost": 0.15, "left_short": 8.0, "de00": 1.0,
}  # fmt: skip


@pytest.mark.parametrize(("name", "score"), WEIGHTS.items())
def test_each_trouble_has_its_weight(name, score):
    # assumed: as much trouble as so many units of a colour difference that shows (docs/arithmetic.md)
    assert Trouble(**{name: 1}).score == pytest.approx(score)


def test_hidden_differences_carding_and_the_last_of_a_bag():
    assert Trouble(de00=10, seen=False).score == pytest.approx(0.5)
    assert Trouble(mottle=0.0).score == pytest.approx(1.0)
    assert Trouble(mottle=10.0).score == pytest.approx(1.3)
    assert Trouble(share_of_free=0.5).score == 0
    assert Trouble(share_of_free=0.51).score == 1.5


# --- words and numbers ----------------------------------------------------------------------------------------------


def test_the_borders_of_the_words_for_a_difference():
    # CIE 142-2001 gives no words; these are the studio's, in the design: 1, 2.5, 5
    words = ["same to the eye", "close", "related", "another colour"]
    assert [in_words(each) for each in (1.0, 2.5, 5.0, 5.001)] == words
    assert [in_words(each) for each in (0.0, 1.001, 2.501)] == words[:3]
    assert [mottle_in_words(each) for each in (3.0, 3.1, 12.1, 30.1)] == [
        "even", "a little heathered", "heathered", "flecked, the fibres stay visible",
    ]  # fmt: skip


def test_two_ways_of_writing_one_length_may_differ_by_three_in_a_hundred():
    assert length("10 cm / 103 mm").value == 100
    with pytest.raises(Disagree):
        length("10 cm / 104 mm")


def test_fractions_words_and_glyphs():
    assert length("⅝ in").value == pytest.approx(15.875)
    assert length("1⅜ in").value == pytest.approx(34.925)
    assert weight("three pinches", hand=Hand(pinch_g=0.02)).value == pytest.approx(0.06)
    assert weight("half a palm", hand=Hand(palm_g=3)).value == pytest.approx(1.5)
    assert [float(share(text)) for text in ("a fifth", "two fifths", "three quarters", "a tenth", "12,5 %")] == [
        0.2, 0.4, 0.75, 0.1, 0.125,
    ]  # fmt: skip


def test_a_mask_is_what_is_inside():
    from wembit.core.pose.skin import inside

    (piece,) = place([PlacedPart("b", 1, Box(40, 20, 10), Seat(centre_mm=5))])
    points = np.array([[0, 0, 5], [19, 9, 9], [19, 11, 5], [21, 0, 5], [0, 0, 11]], dtype=float)
    assert inside(piece, points).tolist() == [True, True, False, False, False]
