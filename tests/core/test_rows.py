"""Several of a part in a row: round, along, over; turned and sized from the first to the last."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from wembit.core.contract.requests import SHAPE
from wembit.core.pose.mesh import surface
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.pose.rows import ALONG, HOWS, OVER, ROUND, Row, rolled
from wembit.core.shape.solids import solid

BODY = PlacedPart("body", 1, solid(SHAPE({"kind": "ellipsoid", "length_mm": 80, "width_mm": 40, "height_mm": 40}, "s")),
                  Seat.of({"on": None, "centre_mm": 30}))  # fmt: skip
PETAL = solid(SHAPE({"kind": "capsule", "diameter_mm": 4, "length_mm": 20}, "s"))
ROWS = st.builds(
    Row, st.sampled_from(HOWS), st.floats(0, 1), st.floats(1, 360), st.floats(-90, 90), st.floats(0.2, 2), st.booleans()
)


def laid(count, row, **seat):
    told = {"on": "body", "t": 0.5, "angle": 40, "pitch": 30, "yaw": 20, "row": row, **seat}
    return [piece for piece in place([BODY, PlacedPart("petal", count, PETAL, Seat.of(told))]) if piece.name == "petal"]


@given(st.integers(1, 40), ROWS)
def test_as_many_as_were_asked_for_each_on_the_skin(count, row):
    pieces = laid(count, row.__dict__)
    assert len(pieces) == count
    host = place([BODY])[0]
    for piece in pieces:
        point, _ = host.skin_at(piece.seat.t, None if piece.seat.angle is None else piece.seat.angle * piece.mirror)
        assert piece.joints[0] == pytest.approx(point, abs=1e-6)


@given(st.floats(-89, 89), st.floats(-180, 180), st.floats(-360, 360))
def test_a_direction_is_rolled_about_the_axis_as_a_rotation_does(pitch, yaw, degrees):
    # by scipy: axis x, side y, top z; from the top to the side is a turn about −x
    p, y = math.radians(pitch), math.radians(yaw)
    way = np.array([math.cos(p) * math.cos(y), math.cos(p) * math.sin(y), math.sin(p)])
    wanted = Rotation.from_euler("x", -degrees, degrees=True).apply(way)
    up, aside = (math.radians(each) for each in rolled(pitch, yaw, degrees))
    found = [math.cos(up) * math.cos(aside), math.cos(up) * math.sin(aside), math.sin(up)]
    assert found == pytest.approx(wanted, abs=1e-6)


@pytest.mark.parametrize("count", [3, 6, 8])
def test_a_full_round_is_the_same_from_every_piece(count):
    """Seven petals stand 51.4° apart  # common practice: dots on a ring, six at 60°"""
    pieces = laid(count, {"how": ROUND})
    middle = np.mean([piece.joints[0] for piece in pieces], axis=0)
    assert middle == pytest.approx([0, 0, 30], abs=1e-6), "round the axis of a level body"
    turn = Rotation.from_euler("x", -360 / count, degrees=True)
    for one, two in zip(pieces, [*pieces[1:], pieces[0]], strict=True):
        assert turn.apply(one.frames[0].axis) == pytest.approx(two.frames[0].axis, abs=1e-6)


def test_a_part_of_the_round_lies_about_the_angle():
    angles = [piece.seat.angle for piece in laid(5, {"how": ROUND, "spread": 60})]
    assert angles == pytest.approx([10, 25, 40, 55, 70])


def test_along_the_axis_from_here_to_there():
    pieces = laid(5, {"how": ALONG, "to": 0.9, "turn": 20, "size": 0.5}, t=0.1)
    assert [piece.seat.t for piece in pieces] == pytest.approx([0.1, 0.3, 0.5, 0.7, 0.9])
    assert pieces[-1].seat.pitch - pieces[0].seat.pitch == pytest.approx(20)
    lengths = [piece.part.shape.longest_mm for piece in pieces]
    assert lengths == pytest.approx([20, 17.5, 15, 12.5, 10])


def test_half_of_them_stand_mirrored_on_the_other_flank():
    pieces = laid(6, {"how": ALONG, "to": 0.8, "both": True}, t=0.2)
    assert len(pieces) == 6
    for one, two in zip(pieces[::2], pieces[1::2], strict=True):
        assert one.joints[0] * (1, -1, 1) == pytest.approx(two.joints[0], abs=1e-9)


def test_over_a_surface_none_sits_on_another():
    pieces = laid(60, {"how": OVER, "to": 0.8, "spread": 360}, t=0.2)
    points = np.array([piece.joints[0] for piece in pieces])
    away = np.linalg.norm(points[:, None] - points[None], axis=-1) + np.eye(60) * 99
    nearest = away.min(axis=1)
    assert nearest.min() > 3
    assert nearest.max() < 4 * nearest.min(), "spread evenly"


@given(st.integers(1, 30), ROWS, st.sampled_from(["core", "cover", "padding", "coat", "detail"]))
def test_the_weights_of_the_pieces_are_a_whole_and_follow_their_sizes(count, row, role):
    weights = [row.weight(role, count, index) for index in range(len(row.sizes(count)))]
    assert sum(weights) == pytest.approx(1)
    if role == "core" and not row.both:
        first = row.sizes(count)[0]
        assert all(
            w / weights[0] == pytest.approx((s / first) ** 3) for w, s in zip(weights, row.sizes(count), strict=True)
        )
    assert replace(row, size=1.0).mean(role, count) == pytest.approx(1)


def test_the_mean_of_a_row_is_that_of_its_solids():
    """What a core takes is the sum of the volumes of the scaled solids, a cover that of their areas."""
    row, count = Row(ALONG, 0.9, size=0.4), 7
    solids = [PETAL.scaled(size) for size in row.sizes(count)]
    assert row.mean("core", count) * count == pytest.approx(sum(s.volume for s in solids) / PETAL.volume)
    assert row.mean("cover", count) * count == pytest.approx(sum(s.area for s in solids) / PETAL.area)
    assert row.mean("detail", count) == 1


def test_one_more_part_sits_on_each_of_a_row():
    tip = PlacedPart(
        "tip",
        6,
        solid(SHAPE({"kind": "sphere", "diameter_mm": 4}, "s")),
        Seat.of({"on": "petal", "t": 1, "angle": None}),
    )
    seat = Seat.of({"on": "body", "t": 0.5, "angle": 0, "pitch": 40, "row": {"how": ROUND}})
    pieces = place([BODY, PlacedPart("petal", 6, PETAL, seat), tip])
    tips = [piece for piece in pieces if piece.name == "tip"]
    ends = [piece.joints[-1] for piece in pieces if piece.name == "petal"]
    assert [piece.joints[0].tolist() for piece in tips] == [pytest.approx(end.tolist()) for end in ends]
    assert all(surface(piece).size for piece in tips)
