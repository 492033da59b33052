"""Markings drawn by hand: where a finger touches the skin, how much of it is covered, what of that is seen."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon

from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.drawn_marks import drawn_on, rims
from wembit.core.drawing.gestures import rule_of
from wembit.core.drawing.turning_mesh import turned
from wembit.core.drawing.views import Dress, view
from wembit.core.grams.details import area_mm2, drawn_mark, kind_of
from wembit.core.pose.gaze import VIEWS, Gaze
from wembit.core.pose.mesh import slab_directions
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.pose.skin_marks import Drawn, area_of, length_of
from wembit.core.pose.slab_marks import flat_way, sheets, touched_face
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
    assert sum(paint == "#222222" for paint, _ in faces.faces) == len(rims(piece, dress["one"].drawn[0]))


HEART = {"kind": "slab", "outline": [[0, 0], [30, 28], [44, 20], [36, 0], [44, -20], [30, -28]], "thickness_mm": 8}
RIM = ((1, 1), (1, -1), (-1, -1), (-1, 1))


@settings(max_examples=40)
@given(
    st.sampled_from(["side", "front"]), st.floats(0, 60), st.floats(-50, 50), st.floats(-40, 40),
    st.floats(8, 25), st.floats(-15, 15),
)  # fmt: skip
def test_a_touch_on_a_flat_face_is_found_where_it_is(face, pitch, turn, tilt, x, y):
    piece, gaze = lying(HEART, face=face, pitch=pitch), Gaze(turn, tilt)
    across, normal = slab_directions(piece)
    front = normal if float(normal @ gaze.near) >= 0 else -normal
    if abs(float(front @ gaze.near)) < 0.2:
        return  # seen by its edge
    point = piece.joints[0] + piece.frames[0].axis * x + across * y + front * 4
    (spot,) = touched_face(piece, gaze, [gaze.flat(point)])
    assert flat_way(piece.part.shape, [spot])[0] == pytest.approx((x, y), abs=1e-6)
    loop = touched_face(piece, gaze, [gaze.flat(point + across * a + piece.frames[0].axis * b) for a, b in RIM])
    for rim, out in sheets(piece, loop, 0.0, both=False):
        assert float(out @ gaze.near) > 0, "on the face that is seen"
        assert (rim - point) @ out == pytest.approx(0, abs=1e-6)


def test_a_patch_looped_on_a_flat_piece_is_as_large_as_it_was_drawn_and_where():
    piece = lying(HEART, face="side")
    left, up = SIDE.flat(piece.joints[0])
    square = [(left + x, up + y) for x, y in ((14, 2), (22, 2), (22, 10), (14, 10), (14, 2.5))]
    rule = rule_of(piece, SIDE, square, both=False)
    mark = drawn_mark(rule)
    assert area_of(piece.part.shape, Seat(), mark) == pytest.approx(64, rel=0.03)
    seen = drawn_on(piece, mark, SIDE)
    assert seen.bounds == pytest.approx((left + 14, up + 2, left + 22, up + 10), abs=0.1)
    assert drawn_on(piece, mark, VIEWS["other side"]).is_empty
    both = drawn_mark({**rule, "both": True})
    assert drawn_on(piece, both, VIEWS["other side"]).area == pytest.approx(seen.area)
    assert area_of(piece.part.shape, Seat(), both) == pytest.approx(2 * seen.area)
    large = piece.part.shape.scaled(2)
    assert area_of(large, Seat(), mark) == pytest.approx(4 * seen.area), "it grows with its piece"


def test_a_press_on_a_flat_piece_is_a_spot_there_and_what_goes_over_the_rim_is_not_felted():
    piece = lying(HEART, face="side")
    left, up = SIDE.flat(piece.joints[0])
    spot = drawn_mark(rule_of(piece, SIDE, [(left + 30, up + 14)], both=False))
    seen = drawn_on(piece, spot, SIDE)
    assert (seen.centroid.x - left, seen.centroid.y - up) == pytest.approx((30, 14), abs=0.1)
    over = drawn_mark(rule_of(piece, SIDE, [(left + 20, up), (left + 60, up + 1)], both=False))
    face = Polygon(HEART["outline"])
    line = LineString([(20, 0), (60, 1)]).buffer(over.width_mm / 2)
    assert area_of(piece.part.shape, Seat(), over) == pytest.approx(line.intersection(face).area, rel=0.02)


def test_the_outer_faces_of_a_pair_are_marked_alike_and_a_closed_line_leaves_its_middle_free():
    pair = [PlacedPart("body", 1, solid(SHAPE(EGG, "s")), Seat.of({"on": None, "centre_mm": 40})),
            PlacedPart("ear", 2, solid(SHAPE(HEART, "s")), Seat.of({"on": "body", "t": 0.7, "angle": 40, "pitch": 80,
                                                                    "face": "side"}))]  # fmt: skip
    ears = [piece for piece in place(pair) if piece.name == "ear"]
    ring = [(0.5 + 0.2 * math.cos(a), 90 + 40 * math.sin(a)) for a in np.linspace(0, 2 * math.pi, 24)]
    mark = Drawn("#222222", tuple(ring), 2.0)
    outer = {math.copysign(1, out[1]) for ear in ears for _, out in rims(ear, mark)}
    assert outer == {1.0, -1.0}
    for ear in ears:
        flat = sum(Polygon(np.column_stack([rim @ ear.frames[0].axis, rim @ slab_directions(ear)[0]])).area
                   for rim, _ in rims(ear, mark))  # fmt: skip
        assert flat == pytest.approx(area_of(ear.part.shape, ear.seat, mark), rel=1e-6)
    faces = turned([ears[0]], {"ear": Dress("#aaaaaa", drawn=(mark,))})
    assert sum(paint == "#222222" for paint, _ in faces.faces) == 2, "a ring in two halves"


def space_of(rim):
    """mm² of a flat ring in space."""
    around = np.roll(rim, -1, axis=0)
    return float(np.linalg.norm(np.cross(rim, around).sum(axis=0))) / 2


def test_the_pieces_of_skin_under_a_line_and_a_loop_are_as_large_as_the_wool_that_is_asked_for():
    piece, shape = lying(POST), solid(SHAPE(POST, "s"))
    line = Drawn("#222222", ((0.2, 90), (0.8, 90)), 6.0, both=True)
    pieces = rims(piece, line)
    assert sum(space_of(rim) for rim, _ in pieces) == pytest.approx(2 * 60 * 6, rel=0.01), "both flanks"
    sides = np.sign([out[1] for _, out in pieces])
    assert abs(sides.sum()) == 0
    loop = Drawn("#222222", ((0.3, -45), (0.7, -45), (0.7, 45), (0.3, 45)))
    around = rims(piece, loop)
    assert sum(space_of(rim) for rim, _ in around) == pytest.approx(area_of(shape, Seat(), loop), rel=0.02)
    centre = (piece.joints[0] + piece.joints[-1]) / 2
    assert all(out @ (rim.mean(axis=0) - centre) > 0 for rim, out in around), "outward"
    assert rims(piece, Drawn("#222222", ((0.3, 0), (0.7, 0)))) == [], "there and back is no loop"
