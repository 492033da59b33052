"""A part that sits on another host stays where it was."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.pose.reseating import nearest_on, spot_of
from wembit.core.shape.solids import Ellipsoid, Sphere

BODY = PlacedPart("body", 1, Ellipsoid(80, 44, 48), Seat(centre_mm=40))


@given(st.floats(0.05, 0.95), st.floats(-170, 170))
def test_the_nearest_spot_of_a_point_of_the_skin_is_that_point(t, angle):
    (body,) = place([BODY])
    point = body.skin_at(t, angle)[0]
    again = body.skin_at(*nearest_on(body, point))[0]
    assert np.linalg.norm(again - point) < 0.5


def test_on_a_sphere_the_nearest_spot_lies_on_the_line_to_its_middle():
    (ball,) = place([PlacedPart("ball", 1, Sphere(40), Seat(centre_mm=20))])
    middle = (ball.axis_at(0)[0] + ball.axis_at(1)[0]) / 2
    away = np.array([10.0, 24.0, 31.0])
    spot = ball.skin_at(*nearest_on(ball, middle + away))[0] - middle
    assert np.linalg.norm(spot) == pytest.approx(20, abs=0.1)
    assert spot / 20 == pytest.approx(away / np.linalg.norm(away), abs=0.02)


def test_a_piece_sits_at_its_spot_on_either_side():
    ear = PlacedPart("ear", 2, Sphere(10), Seat("body", 0.8, 40, sink_mm=2))
    body, *ears = place([BODY, ear])
    for piece in ears:
        assert spot_of(piece) == pytest.approx(body.skin_at(0.8, 40 * piece.mirror)[0])
    assert spot_of(body) == pytest.approx(body.joints[0])
