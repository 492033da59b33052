"""What a new part is by its kind: possible at any length, on something it can sit on, upright where it should be."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.contract.requests import SHAPE
from wembit.core.craft.materials import FIRMNESS
from wembit.core.craft.part_kinds import KINDS, root_seat
from wembit.core.pose.mesh import UP, surface
from wembit.core.pose.placing import PlacedPart, Seat, angles_from_standing, place, standing_angles
from wembit.core.shape.solids import solid


def part(kind: str, length: float, seat: dict) -> PlacedPart:
    return PlacedPart(kind, KINDS[kind].count, solid(SHAPE(KINDS[kind].shape(length), "shape")), Seat.of(seat))


@given(st.sampled_from(sorted(KINDS)), st.floats(6, 2000))
def test_every_kind_is_a_possible_shape_of_about_the_length_that_was_said(kind, length):
    shape = solid(SHAPE(KINDS[kind].shape(length), "shape"))
    assert shape.volume > 0
    assert shape.longest_mm == pytest.approx(length, rel=0.15)
    assert KINDS[kind].firmness in FIRMNESS
    assert set(KINDS[kind].on) <= set(KINDS)


@given(st.sampled_from(["body", "ball", "shell", "tower", "base"]), st.floats(5, 500))
def test_the_first_part_stands_on_the_ground(kind, length):
    shape = KINDS[kind].shape(length)
    (piece,) = place([part(kind, length, root_seat(shape, kind))])
    assert float((surface(piece) @ UP).min()) == pytest.approx(0, abs=0.06)


@given(st.floats(-80, 80), st.floats(-170, 170), st.floats(-60, 60), st.floats(0.1, 0.9))
def test_a_part_points_where_it_was_told_whatever_it_sits_on(pitch, yaw, lean, t):
    body = part("body", 60, {"on": None, "centre_mm": 40, "pitch": lean})
    head = part("head", 30, {"on": "body", "t": 0.8, "angle": 0, "pitch": 35, "yaw": 20, "by": 0.3})
    wanted = part("ball", 9, {"on": "head", "t": t, "angle": 0, "pitch": pitch, "yaw": yaw})
    turned = angles_from_standing(wanted, [body, head])
    placed = place([body, head, part("ball", 9, {"on": "head", "t": t, "angle": 0, **turned})])
    assert standing_angles(placed[-1]) == pytest.approx((pitch, yaw), abs=0.01)


def test_what_sits_on_a_part_does_not_matter_for_how_it_points():
    body = part("body", 60, {"on": None, "centre_mm": 40})
    head = part("head", 30, {"on": "body", "t": 0.8, "angle": 0})
    nose = part("nose", 5, {"on": "head", "t": 1, "angle": None})
    assert angles_from_standing(head, [body, nose]) == angles_from_standing(head, [body])


@pytest.mark.parametrize(("on", "words"), [("ear", "not there"), ("nose", "carries itself")])
def test_a_part_sits_on_nothing_missing_and_on_nothing_that_it_carries(on, words):
    from wembit.core.errors import BadInput

    body = part("body", 60, {"on": None, "centre_mm": 40})
    nose = part("nose", 5, {"on": "head", "t": 1, "angle": None})
    with pytest.raises(BadInput, match=words):
        angles_from_standing(part("head", 30, {"on": on, "t": 0.5, "angle": 0}), [body, nose])
