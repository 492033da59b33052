"""The locks of a coat: as long as they are told, out of the skin and back from the tip, only where the coat grows."""

import numpy as np
import pytest

from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.surface import LOCKS_A_FACE, Coat, Zone, locks
from wembit.core.pose.gaze import VIEWS
from wembit.core.pose.mesh import UP, surface
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.shape import solids

RADIUS, LENGTH, MIDDLE = 20.0, 12.0, 50.0
RIGHT, NEAR = VIEWS["side"].right, VIEWS["side"].near


@pytest.fixture(scope="module")
def ball():
    shape = solids.solid(SHAPE({"kind": "sphere", "diameter_mm": 2 * RADIUS}, "shape"))
    seat = Seat.of({"on": None, "centre_mm": MIDDLE, "pitch": 0, "yaw": 0})
    return place([PlacedPart("one", 1, shape, seat)])[0]


def strokes(piece, low=0.0, high=1.0, seed=7, length=LENGTH, view="side"):
    """Feet and tips of the locks as drawn, from the middle of the ball: arrays (n, 2) in mm."""
    gaze = VIEWS[view]
    right = gaze.right
    found = locks(piece, surface(piece), Coat(Zone("sand", low, high), length), gaze, seed)
    ends = np.array([[ring[0], ring[-1]] for ring in found], dtype=float)
    middle = surface(piece).mean(axis=(0, 1))
    centre = np.array([middle @ right, middle @ UP])
    return ends[:, 0] - centre, ends[:, 1] - centre


def test_feet_stand_on_the_skin_and_locks_are_as_long_as_told(ball):
    feet, tips = strokes(ball)
    assert np.linalg.norm(feet, axis=1).max() <= RADIUS + 0.6, "drawn on the mesh of the ball"
    drawn = np.linalg.norm(tips - feet, axis=1)
    assert drawn.max() <= LENGTH * 1.15 + 1e-6, "at most 15 % longer than told"
    assert np.quantile(drawn, 0.99) > 0.85 * LENGTH, "those in the plane of the picture are drawn at their length"


def test_twice_as_long_a_coat_has_locks_twice_as_long_on_the_same_feet(ball):
    feet, tips = strokes(ball)
    feet2, tips2 = strokes(ball, length=2 * LENGTH)
    assert feet2 == pytest.approx(feet)
    assert tips2 - feet2 == pytest.approx(2 * (tips - feet), abs=0.02)


def test_locks_point_out_and_lean_back_from_the_tip(ball):
    feet, tips = strokes(ball)
    way = tips - feet
    outward = (way * feet).sum(axis=1) / np.maximum(np.linalg.norm(feet, axis=1), 1e-9)
    rim = np.linalg.norm(feet, axis=1) > 0.8 * RADIUS
    assert (outward[rim] > 0).mean() > 0.9
    axis = np.array([ball.frames[0].axis @ RIGHT, ball.frames[0].axis @ UP])
    assert (way @ axis).mean() < -0.25 * LENGTH, "away from where the axis points"


def test_a_coat_of_the_back_grows_above_and_one_of_the_belly_below(ball):
    back, _ = strokes(ball, 0.0, 0.4)
    belly, _ = strokes(ball, 0.6, 1.0)
    assert np.median(back[:, 1]) > 0.3 * RADIUS and np.median(belly[:, 1]) < -0.3 * RADIUS
    # a band of 0.4 of the half turn reaches 72° down from the top: cos 72° of the radius, and a face of the mesh more
    assert back[:, 1].min() > RADIUS * (np.cos(np.radians(72 + 16)) - 0.1)
    assert len(back) < len(strokes(ball)[0]) * 0.55


def test_each_face_of_the_mesh_that_is_seen_carries_its_locks(ball):
    points = surface(ball)
    inner = points[1:-1].shape[0] * points.shape[1]
    feet, _ = strokes(ball)
    assert 0.5 * inner * LOCKS_A_FACE < len(feet) < 0.75 * inner * LOCKS_A_FACE, (
        "the near half and a little over the edge"
    )


def test_the_same_seed_plants_the_same_locks_and_another_one_others(ball):
    again = strokes(ball)
    for one, two in zip(strokes(ball), again, strict=True):
        assert one == pytest.approx(two)
    assert not np.allclose(strokes(ball, seed=8)[0][:20], again[0][:20])
