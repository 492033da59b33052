"""Parts pushed over the skin, how a figure stands, a face's line, a figure cut open."""

import math
from dataclasses import replace

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.cross_section import Inside, cut_open
from wembit.core.drawing.scale_objects import BREADTH_MM, LENGTH_MM, hand
from wembit.core.drawing.surface import Zone, under
from wembit.core.pose.balance import standing
from wembit.core.pose.mesh import UP
from wembit.core.pose.nudging import nudged, sunk
from wembit.core.pose.pair_line import pair_line
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.shape.solids import solid


def part(name, kind, count=1, seat=None, **sizes):
    seat = Seat.of({"on": None, "centre_mm": 40, **(seat or {})})
    return PlacedPart(name, count, solid(SHAPE({"kind": kind, **sizes}, "s")), seat)


BODY = part("body", "ellipsoid", length_mm=90, width_mm=50, height_mm=50)
HEAD = part("head", "sphere", diameter_mm=30, seat={"on": "body", "t": 0.9, "angle": 0, "pitch": 30, "by": 0.5})
EARS = part("ear", "capsule", 2, diameter_mm=6, length_mm=20,
            seat={"on": "head", "t": 0.4, "angle": 40, "pitch": 60, "sink": 3})  # fmt: skip
NOSE = part("nose", "sphere", diameter_mm=5, seat={"on": "head", "t": 1, "angle": None})
FIGURE = [BODY, HEAD, EARS, NOSE]


def roots(parts, name):
    return [piece for piece in place(parts) if piece.name == name]


def pushed(name, which, right, up, mirror=1):
    seat = nudged(place(FIGURE), name, which, right, up, mirror)
    return [replace(each, seat=seat) if each.name == name else each for each in FIGURE]


def touch(parts, name):
    piece = roots(parts, name)[0]
    return piece.host.skin_at(piece.seat.t, piece.seat.angle)[0]


@settings(max_examples=40)
@given(st.floats(-5, 5), st.floats(-5, 5))
def test_an_ear_goes_where_it_is_pushed_and_stays_on_the_skin(right, up):
    before, after = touch(FIGURE, "ear"), touch(pushed("ear", "side", right, up), "ear")
    gap = math.hypot(after[0] - before[0] - right, after[2] - before[2] - up)
    centre = roots(FIGURE, "head")[0].axis_at(0.5)[0]
    wanted = math.hypot(
        before[0] - centre[0] + right, before[2] - centre[2] + up
    )  # from the middle of the ball of 15 mm
    if wanted < 13:
        assert gap < 0.75, "where it is pushed, as long as that lies well on the ball that is seen"
    else:
        assert gap < max(0.0, wanted - 15) + 2.0, "else as near as the ball goes"
    assert np.linalg.norm(after - centre) == pytest.approx(15, abs=0.05)


def test_both_of_a_pair_go_and_stay_mirrored():
    parts = pushed("ear", "front", 3, 0)
    one, two = roots(parts, "ear")
    assert one.joints[0] == pytest.approx(two.joints[0] * [1, -1, 1])
    other = pushed("ear", "front", -3, 0, mirror=-1)  # the other one, pushed outward too
    assert roots(other, "ear")[0].joints[0] == pytest.approx(one.joints[0], abs=0.5)


def test_what_sits_in_the_middle_stays_in_the_middle():
    assert nudged(place(FIGURE), "head", "side", -8, 0).angle in (0, 180)


def test_the_root_rises_and_a_part_on_the_axis_slides():
    assert nudged(place(FIGURE), "body", "side", 5, 3).centre_mm == 43
    assert nudged(place(FIGURE), "nose", "side", -9, 0).t < 1
    with pytest.raises(KeyError):
        nudged(place(FIGURE), "tail", "side", 1, 1)


def test_deeper_is_deeper_but_no_further_than_its_length():
    assert sunk(EARS.seat, 2, EARS.shape).sink_mm == 5
    assert sunk(EARS.seat, 200, EARS.shape).sink_mm == 20


def test_what_sits_on_a_pushed_part_goes_along():
    before, after = roots(FIGURE, "ear")[0].joints[0], roots(pushed("head", "side", -10, 0), "ear")[0].joints[0]
    head = roots(pushed("head", "side", -10, 0), "head")[0].joints[0] - roots(FIGURE, "head")[0].joints[0]
    assert after - before == pytest.approx(head, abs=1.5)


def test_a_ball_on_four_feet_stands_and_tips_with_a_heavy_head():
    feet = part("foot", "capsule", 4, diameter_mm=8, length_mm=20, seat={
        "on": "body", "t": 0.5, "angle": 150, "pitch": -90, "copies": [{"t": 0.3}, {"t": 0.7}]})  # fmt: skip
    pieces = place([BODY, HEAD, feet])
    stands = standing(pieces, {"body": 20, "foot": 1})
    assert stands.stands
    assert stands.centre == pytest.approx((0, 0), abs=0.6)
    tips = standing(pieces, {"body": 1, "head": 60, "foot": 0.1})
    assert not tips.stands
    assert tips.way == "forward"
    assert tips.margin_mm < 0
    assert standing(pieces, {}) is None


@settings(max_examples=25)
@given(st.floats(0.2, 0.8), st.floats(10, 170))
def test_the_centre_of_weight_is_the_mean_by_weight(t, angle):
    # the centre of mass of two bodies divides the line between theirs inversely as their weights
    ball = part("ball", "sphere", diameter_mm=10, seat={"on": "body", "t": t, "angle": angle, "by": 0.5})
    pieces = place([BODY, ball])
    found = standing(pieces, {"body": 3, "ball": 1})
    middles = [piece.axis_at(0.5)[0] for piece in pieces]
    expected = (3 * middles[0] + middles[1]) / 4
    assert found.centre == pytest.approx(tuple(expected[:2]), abs=0.3)


def test_a_pairs_line_is_level_and_half_way_down():
    eyes = part("eye", "none", 2, seat={"on": "head", "t": 0.9, "angle": 90, "bead_mm": 4})
    found = pair_line(place([BODY, HEAD, eyes]), "eye")
    assert found.level_mm == pytest.approx(0, abs=1e-6)
    assert found.across[0] == pytest.approx(-found.across[1])
    assert found.apart_mm == pytest.approx(abs(found.across[0]) * 2)
    assert 0 < found.down < 1
    assert pair_line(place(FIGURE), "head") is None


def area(rings):
    return sum(shapely.Polygon(ring).area for ring in rings)


def test_a_cut_shows_cover_core_and_padding_at_their_thickness():
    inside = Inside(
        (("#core", 0.4), ("#fill", 0.6)), covers=((2.0, Zone("#cover", 0.0, 1.0)),), paddings=(("#soft", 3.0, 1.0),)
    )
    ball = part("body", "sphere", diameter_mm=40)
    found = cut_open(place([ball]), {"body": inside}).pieces[0]
    zones = dict(found.zones)
    assert found.paint == "#core"
    assert area(found.rings) == pytest.approx(math.pi * 20**2, rel=0.02)
    ring = [shapely.Polygon(zone) for zone in zones["#cover"]]
    assert max(point.area for point in ring) - min(point.area for point in ring) == pytest.approx(
        math.pi * (20**2 - 18**2), rel=0.05
    ), "a ring 2 mm thick"
    assert area(zones["#fill"]) == pytest.approx(0.6 ** (2 / 3) * math.pi * 15**2, rel=0.05)


def test_a_cover_of_a_part_of_the_skin_is_cut_only_there():
    half = Inside((("#core", 1.0),), covers=((2.0, under("#belly", 0.5)),))
    found = cut_open(place([part("body", "sphere", diameter_mm=40)]), {"body": half}).pieces[0]
    belly = [v for ring in dict(found.zones)["#belly"] for _, v in ring]
    assert max(belly) < 21 and min(belly) == pytest.approx(0, abs=0.5), "below the middle, which lies 20 mm high"


def test_a_cut_lays_bare_the_wire_and_leaves_pairs_as_outlines():
    legs = part("leg", "wrap", 2, length_mm=30, diameter_mm=6, wire_mm=1, seat={"on": "body", "t": 0.5, "angle": 140})
    found = {piece.name: piece for piece in cut_open(place([BODY, legs]), {"leg": Inside((("#a", 1.0),))}).pieces}
    assert found["leg"].stroke[2] == 1
    assert found["leg"].paint == ""


def test_a_hand_is_a_hand_long():
    ring = np.array(hand()[0])
    assert np.ptp(ring[:, 1]) == pytest.approx(LENGTH_MM)
    assert np.ptp(ring[:, 0]) > BREADTH_MM
    assert float(UP[2]) == 1
