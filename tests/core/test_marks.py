"""Patches, lines and caps as they are drawn: as large as they are said to be, and only where they are seen."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.marks import Mark, line, mark_on, patches
from wembit.core.drawing.views import Dress, view
from wembit.core.pose.gaze import VIEWS
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.shape import solids

SIDE, FRONT = VIEWS["side"], VIEWS["front"]
BODY = {"kind": "ellipsoid", "length_mm": 80, "width_mm": 50, "height_mm": 50}
POST = {"kind": "cylinder", "diameter_mm": 40, "length_mm": 90}
EAR = {"kind": "slab", "outline": [[0, -6], [40, -6], [40, 6], [0, 6]], "thickness_mm": 3}


def lying(shape: dict, pitch: float = 0):
    seat = Seat.of({"on": None, "centre_mm": 60, "pitch": pitch, "yaw": 0})
    return place([PlacedPart("one", 1, solids.solid(SHAPE(shape, "shape")), seat)])[0]


@settings(max_examples=30)
@given(st.floats(5, 200), st.floats(0.2, 6), st.integers(1, 8))
def test_pieces_together_have_the_area(area, stretch, pieces):
    found = patches("#222222", area, 0.5, 30, stretch, pieces)
    assert len(found) == pieces
    assert sum(mark.area for mark in found) == pytest.approx(area)
    assert all(mark.long_mm == pytest.approx(stretch * mark.wide_mm) for mark in found)


def test_two_pieces_lie_on_both_flanks_and_more_evenly_round():
    assert [mark.angle for mark in patches("#222222", 40, 0.5, 70, pieces=2)] == [70, -70]
    assert [mark.angle for mark in patches("#222222", 40, 0.5, 0, pieces=4)] == [0, 90, 180, 270]


@settings(max_examples=30)
@given(st.floats(2, 8), st.floats(1, 4), st.floats(-80, 80))
def test_a_small_patch_that_faces_the_viewer_is_drawn_with_its_area(wide, stretch, pitch):
    near_side = -90  # the side view is seen from −y
    mark = Mark("#222222", wide * stretch, wide, 0.5, near_side)
    assert mark_on(lying(POST, pitch), mark, SIDE).area == pytest.approx(mark.area, rel=0.06)


def test_a_line_is_as_long_and_as_wide_as_it_is_said():
    along = mark_on(lying(POST), line("#222222", 50, 3, 0.5, -90), SIDE)
    left, bottom, right, top = along.bounds
    assert (right - left, top - bottom) == pytest.approx((50, 3), rel=0.02)
    ring = mark_on(lying(POST), line("#222222", 20, 3, 0.5, -90, round_=True), SIDE)
    left, bottom, right, top = ring.bounds
    assert right - left == pytest.approx(3, rel=0.02)
    assert top - bottom == pytest.approx(2 * 20 * math.sin(20 / 2 / 20), rel=0.02)  # the chord of an arc of 20 mm


def test_what_lies_behind_is_not_seen_and_what_lies_over_the_edge_is_seen_in_part():
    post = lying(POST)
    behind, facing, edge = (mark_on(post, Mark("#222222", 10, 10, 0.5, angle), SIDE) for angle in (90, -90, 0))
    assert behind.is_empty
    assert facing.area > 70
    assert 0 < edge.area < facing.area / 2
    assert edge.bounds[3] == pytest.approx(60 + 20, abs=0.05), "it follows the upper edge"


@settings(max_examples=20)
@given(st.floats(10, 1500))
def test_a_cap_of_a_ball_is_a_disc_from_its_end(area):
    """A cap of the area 2πRh reaches to the radius √(2Rh − h²) (the area of a spherical cap)."""
    ball = lying({"kind": "sphere", "diameter_mm": 40})
    seen = mark_on(ball, patches("#222222", area, 1.0, 0)[0], FRONT)
    high = area / (2 * math.pi * 20)
    rim = math.sqrt(2 * 20 * high - high**2) if high < 20 else 20
    assert seen.bounds[2] - seen.bounds[0] == pytest.approx(2 * rim, rel=0.08, abs=0.6)
    side = mark_on(ball, patches("#222222", area, 1.0, 0)[0], SIDE)
    assert side.bounds[2] - side.bounds[0] == pytest.approx(high, rel=0.08, abs=0.25)


def test_a_cap_that_points_away_is_hidden():
    ball = lying({"kind": "sphere", "diameter_mm": 40})
    assert mark_on(ball, patches("#222222", 60, 0.0, 0)[0], FRONT).is_empty


def test_the_end_of_a_slab_counts_both_faces_and_its_face_is_seen_from_one_side():
    ear = lying(EAR, 0)
    tip = mark_on(ear, patches("#222222", 120, 1.0, 0)[0], SIDE)
    assert tip.bounds[2] - tip.bounds[0] == pytest.approx(120 / 2 / 12, rel=0.02)  # 12 mm high, two faces
    facing = [mark_on(ear, patches("#222222", 60, 0.5, angle, 3)[0], SIDE).area for angle in (90, -90)]
    assert sorted(facing) == pytest.approx([0, 60], rel=0.02, abs=1e-9)


@pytest.mark.parametrize("shape", [BODY, POST, EAR, {"kind": "wrap", "length_mm": 60, "diameter_mm": 9, "wire_mm": 1},
                                   {"kind": "box", "length_mm": 40, "width_mm": 30, "height_mm": 30},
                                   {"kind": "torus", "outer_diameter_mm": 40, "tube_diameter_mm": 10},
                                   {"kind": "dome", "diameter_mm": 40, "height_mm": 14}])  # fmt: skip
@pytest.mark.parametrize("t", [0, 0.3, 0.5, 1])
def test_a_mark_never_reaches_over_what_it_lies_on(shape, t):
    mark = Mark("#111111", 18, 9, t, -60)
    piece = lying(shape)
    found = view([piece], {"one": Dress("#888888", marks=(mark,))}, "side").pieces[0]
    outer = np.array([point for ring in found.rings for point in ring])
    for paint, rings in found.zones:
        assert paint == "#111111"
        for ring in rings:
            inner = np.array(ring)
            assert (inner.min(axis=0) >= outer.min(axis=0) - 1e-6).all()
            assert (inner.max(axis=0) <= outer.max(axis=0) + 1e-6).all()


PLATE = {"kind": "slab", "outline": [[0, -12], [60, -12], [60, 12], [0, 12]], "thickness_mm": 4}


@pytest.mark.parametrize("t", [0.25, 0.5, 0.75])
def test_a_mark_on_the_face_of_a_slab_lies_where_it_is_said_at_its_true_size(t):
    piece = lying(PLATE)
    faces = {angle: mark_on(piece, Mark("#222222", 12, 6, t, angle), SIDE) for angle in (-90, 90)}
    seen = [shape for shape in faces.values() if not shape.is_empty]
    assert len(seen) == 1, "only one of the two faces looks at the viewer"
    left, bottom, right, top = seen[0].bounds
    whole = view([piece], {"one": Dress("#888888")}, "side").bounds
    assert (right - left, top - bottom) == pytest.approx((12, 6), rel=0.02)
    assert seen[0].area == pytest.approx(math.pi * 12 * 6 / 4, rel=0.02)
    assert (left + right) / 2 == pytest.approx(whole[0] + t * 60, abs=0.7), "so far along its axis, from its root"
    assert (bottom + top) / 2 == pytest.approx(60, abs=0.01), "in the middle across: so high lies the plate"


@settings(max_examples=25)
@given(st.floats(40, 600), st.sampled_from([0.0, 1.0]))
def test_the_end_of_a_slab_holds_half_of_the_mark_on_each_face(area, end):
    piece = lying(PLATE)
    mark = patches("#222222", area, end, 0)[0]
    left, bottom, right, top = mark_on(piece, mark, SIDE).bounds
    whole = view([piece], {"one": Dress("#888888")}, "side").bounds
    assert right - left == pytest.approx(area / 2 / 24, rel=0.02), "so far in that 24 mm across hold half of it"
    assert top - bottom == pytest.approx(24, rel=0.02)
    at = right - whole[2] if end else left - whole[0]
    assert at == pytest.approx(0, abs=0.7), "at the tip, or at the root"
