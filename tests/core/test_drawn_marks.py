"""Markings drawn by hand: where a finger touches the skin, how much of it is covered, what of that is seen."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.drawn_marks import drawn_on, quads
from wembit.core.drawing.turning_mesh import turned
from wembit.core.drawing.views import Dress, view
from wembit.core.grams.details import area_mm2, kind_of
from wembit.core.pose.gaze import VIEWS, Gaze
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.pose.skin_marks import Drawn, area_of, length_of
from wembit.core.pose.touching import touched
from wembit.core.shape.solids import solid

SIDE, FRONT = VIEWS["side"], VIEWS["front"]


def lying(shape, **seat):
    return place([PlacedPart("one", 1, solid(SHAPE(shape, "s")), Seat.of({"on": None, "centre_mm": 40, **seat}))])[0]


POST = {"kind": "cylinder", "diameter_mm": 40, "length_mm": 100}
EGG = {"kind": "ellipsoid", "length_mm": 80, "width_mm": 40, "height_mm": 50}


@settings(max_examples=60)
@given(st.floats(0.1, 0.9), st.floats(-170, 170), st.floats(0, 360), st.floats(-60, 60))
def test_what_is_seen_of_the_skin_is_found_where_it_is_touched(t, angle, turn, tilt):
    piece, gaze = lying(EGG, pitch=20, yaw=30), Gaze(turn, tilt)
    point, out = piece.skin_at(t, angle)
    if float(out @ gaze.near) < 0.3:
        return
    right, up = gaze.flat(point)
    ((at, round_),) = touched(piece, gaze, [(right, up)])
    there = piece.skin_at(at, round_)[0]
    assert np.linalg.norm(gaze.flat(there) - [right, up]) < 2.0, "within a finger's tip of it"


def test_a_touch_beside_the_figure_takes_the_nearest_place_and_a_way_round_the_underside_stays_in_one():
    piece = lying(POST)
    ((t, angle),) = touched(piece, SIDE, [(0, 500)])
    assert t == pytest.approx(0.5, abs=0.02)
    assert angle == pytest.approx(0, abs=8), "the top"
    ways = touched(piece, Gaze(0, -80), [(-20, y) for y in np.linspace(-15, 15, 9)])
    assert max(abs(b[1] - a[1]) for a, b in pairwise(ways)) < 90


@pytest.mark.parametrize(("points", "length"), [
    (((0.2, 90), (0.8, 90)), 60.0), (((0.5, 0), (0.5, 90)), math.pi * 10), (((0.5, -180), (0.5, 180)), math.pi * 40),
])  # fmt: skip
def test_a_line_is_as_long_as_its_way_on_the_skin(points, length):
    """On a post of 40 mm: along it, a quarter round, all round."""
    shape = solid(SHAPE(POST, "s"))
    assert length_of(shape, Seat(), points) == pytest.approx(length, rel=2e-3)
    line = Drawn("#222222", points, 3.0)
    assert area_of(shape, Seat(), line) == pytest.approx((length + 3) * 3, rel=2e-3)


def test_a_loop_on_a_post_is_a_rectangle_unrolled_and_a_whole_ball_is_its_area():
    shape = solid(SHAPE(POST, "s"))
    loop = Drawn("#222222", ((0.3, -45), (0.7, -45), (0.7, 45), (0.3, 45)))
    assert area_of(shape, Seat(), loop) == pytest.approx(40 * math.pi * 20 / 2, rel=2e-3)
    ball = solid(SHAPE({"kind": "sphere", "diameter_mm": 30}, "s"))
    all_of_it = Drawn("#222222", ((0, -180), (1, -180), (1, 180), (0, 180)))
    assert area_of(ball, Seat(), all_of_it) == pytest.approx(math.pi * 30**2, rel=0.01)  # 4 π r²
    assert area_of(ball, Seat(), Drawn("#222222", ((0.1, 0), (0.2, 10)))) == 0, "two points make no loop"


def test_on_both_flanks_it_takes_twice_the_wool():
    shape, points = solid(SHAPE(EGG, "s")), ((0.3, 60), (0.7, 60))
    one, both = (area_of(shape, Seat(), Drawn("#222222", points, 4, both)) for both in (False, True))
    assert both == pytest.approx(2 * one)
    rule = {"drawn": [list(p) for p in points], "width_mm": 4, "both": True}
    assert kind_of(rule) == "drawn"
    assert area_mm2(rule, shape, Seat(), 0.5) == pytest.approx(both)


def test_only_the_flank_that_is_seen_shows_it_and_from_the_front_both():
    piece = lying(EGG)
    stripe = Drawn("#222222", ((0.5, 50), (0.9, 50)), 4, True)
    alone = Drawn("#222222", ((0.5, 90), (0.9, 90)), 4)
    assert drawn_on(piece, alone, VIEWS["other side"]).area > 50
    assert drawn_on(piece, alone, SIDE).is_empty
    assert drawn_on(piece, stripe, SIDE).area == pytest.approx(
        drawn_on(piece, stripe, VIEWS["other side"]).area, rel=1e-6
    )
    left, right = sorted(part.centroid.x for part in drawn_on(piece, stripe, FRONT).geoms)
    assert left == pytest.approx(-right, abs=1e-6), "mirrored"


def test_it_grows_with_the_part():
    """As shares of the axis: twice as large, four times the skin of a loop; a line keeps its width until that is scaled."""
    loop = Drawn("#222222", ((0.3, 20), (0.6, 20), (0.6, 80), (0.3, 80)))
    small, large = (solid(SHAPE(EGG, "s")).scaled(s) for s in (1, 2))
    assert area_of(large, Seat(), loop) == pytest.approx(4 * area_of(small, Seat(), loop))


def test_it_is_drawn_and_turned_with_its_part():
    piece = lying(EGG)
    dress = {"one": Dress("#aaaaaa", drawn=(Drawn("#222222", ((0.4, -90), (0.8, -90)), 5),))}
    seen = view([piece], dress, SIDE).pieces[0].zones
    assert [paint for paint, rings in seen if rings] == ["#222222"]
    assert not [rings for _, rings in view([piece], dress, VIEWS["other side"]).pieces[0].zones if rings]
    faces = turned([piece], dress)
    assert sum(paint == "#222222" for paint, _ in faces.faces) == len(quads(piece, dress["one"].drawn[0]))
