"""Traced outlines become solids of the right size."""

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.contract.requests import SHAPE
from wembit.core.errors import BadInput
from wembit.core.shape.solids import solid
from wembit.core.shape.tracing import flat_piece, scale_of, silhouette, wire


def ring(points, turn=0.0, at=(0.0, 0.0), size=1.0):
    c, s = math.cos(turn), math.sin(turn)
    return [(at[0] + size * (x * c - y * s), at[1] + size * (x * s + y * c)) for x, y in points]


def circle(radius, count=64):
    """A circle that begins at its left end."""
    turns = [math.pi + 2 * math.pi * k / count for k in range(count)]
    return [(radius * math.cos(a), radius * math.sin(a)) for a in turns]


@given(st.floats(5, 80), st.floats(0, 6.28), st.floats(-300, 300))
def test_a_traced_circle_is_a_ball_wherever_and_however_it_lies(radius, turn, at):
    shape = solid(SHAPE(silhouette(ring(circle(radius), turn, (at, -at))), "s"))
    assert shape.volume == pytest.approx(4 / 3 * math.pi * radius**3, rel=0.01)  # Archimedes
    assert shape.area == pytest.approx(4 * math.pi * radius**2, rel=0.02)


@given(st.floats(10, 60), st.floats(3, 20), st.floats(0, 6.28))
def test_a_traced_rectangle_is_a_cylinder_or_a_slab(long, wide, turn):
    corners = ring([(0, 0), (0, -wide / 2), (long, -wide / 2), (long, wide / 2), (0, wide / 2)], turn)
    turned = solid(SHAPE(silhouette(corners), "s"))
    farthest = math.hypot(long, wide / 2)  # the axis goes to a far corner: a little longer, a little thinner
    assert turned.volume == pytest.approx(
        math.pi / 4 * wide**2 * long, rel=0.02 + 2 * (farthest - long) / long + wide / long
    )
    flat = solid(SHAPE(flat_piece(corners, 4), "s"))
    assert flat.volume == pytest.approx(long * wide * 4, rel=1e-3)


@given(st.floats(0.05, 5))
def test_twice_the_scale_is_eight_times_the_wool(times):
    one, two = (solid(SHAPE(silhouette(ring(circle(20), size=size)), "s")).volume for size in (1, times))
    assert two == pytest.approx(one * times**3, rel=0.03)


def test_a_depth_ratio_flattens():
    assert silhouette(circle(10), 0.5)["depth_ratio"] == 0.5


def test_stations_are_in_order_and_apart():
    found = silhouette([(0, 0), (10, 8), (10.1, 8), (30, 3), (31, 0), (30, -3), (10, -8)])["stations"]
    assert all(b[0] - a[0] >= 31 / 400 for a, b in itertools.pairwise(found))
    assert found[0][0] == 0
    assert found[-1][0] == pytest.approx(31)
    assert max(w for _, w in found) == pytest.approx(16)


def test_a_wire_keeps_its_lengths_and_bends():
    # 22 mm up at 45°, 20 mm back at 110°, 24 mm up at 95°: a heron's neck
    points, here = [(0.0, 0.0)], (0.0, 0.0)
    for length, pitch in ((22, 45), (20, 110), (24, 95)):
        here = (here[0] + length * math.cos(math.radians(pitch)), here[1] + length * math.sin(math.radians(pitch)))
        points.append(here)
    shape, pitch, bends = wire(points, 12, 1.5)
    assert shape == {"kind": "wrap", "length_mm": pytest.approx(66, abs=0.01), "diameter_mm": 12, "wire_mm": 1.5}
    assert pitch == pytest.approx(45)
    assert [turn for _, turn in bends] == pytest.approx([0, 65, 50])
    assert wire([(0, 0), (30, 0)], 6, 1)[2] == []


def test_the_scale_is_a_known_distance():
    assert scale_of((10, 10), (10, 210), 50) == 0.25


@pytest.mark.parametrize(
    ("make", "said"),
    [
        (lambda: silhouette([(0, 0), (10, 10)]), "at least 3"),
        (lambda: silhouette([(0, 0), (10, 10), (10, 0), (0, 10)]), "crosses itself"),
        (lambda: flat_piece([(0, 0), (10, 10), (10, 0), (0, 10)], 3), "crosses itself"),
        (lambda: silhouette([(0, 0), (0.01, 0.02), (0.02, 0)]), "0.1 mm"),
        (lambda: silhouette([(0, 0), (20_000, 10), (20_000, 0)]), "10 m"),
        (lambda: wire([(0, 0)], 6, 1), "at least 2"),
        (lambda: wire([(0, 0), (0, 0), (5, 5)], 6, 1), "0.1 mm"),
        (lambda: wire([(0, 0), (9, 9)], 1, 1), "thinner than its sleeve"),
        (lambda: scale_of((3, 3), (3, 3), 10), "apart"),
    ],
)
def test_what_cannot_be_traced_is_told(make, said):
    with pytest.raises(BadInput, match=said):
        make()


@pytest.mark.parametrize("pitches", [(170, -170), (-170, 170), (10, 350), (0, 180), (90, -90)])
def test_a_bend_turns_the_short_way_round(pitches):
    first, second = (math.radians(pitch) for pitch in pitches)
    points = [(0.0, 0.0), (20 * math.cos(first), 20 * math.sin(first))]
    points.append((points[1][0] + 15 * math.cos(second), points[1][1] + 15 * math.sin(second)))
    shape, pitch, bends = wire(points, 8, 1.25)
    assert shape == {"kind": "wrap", "length_mm": 35, "diameter_mm": 8, "wire_mm": 1.25}
    assert [length for length, _ in bends] == [20, 15]
    assert bends[0][1] == 0 and -180 <= bends[1][1] <= 180
    assert math.cos(math.radians(pitch + bends[1][1])) == pytest.approx(math.cos(second), abs=1e-3)
    assert math.sin(math.radians(pitch + bends[1][1])) == pytest.approx(math.sin(second), abs=1e-3)


@pytest.mark.parametrize(
    ("points", "diameter", "wire_mm", "where", "value"),
    [
        ([(0, 0)], 6, 1, "points", 1),
        ([(0, 0), (9, 9)], 2, 2, "wire_mm", 2),
        ([(0, 0), (9, 9)], 2, 3, "wire_mm", 3),
        ([(0, 0), (0.09, 0), (9, 9)], 6, 1, "points", None),
    ],
)
def test_a_wire_that_cannot_be_names_what_to_change(points, diameter, wire_mm, where, value):
    with pytest.raises(BadInput) as fault:
        wire(points, diameter, wire_mm)
    assert (fault.value.where, fault.value.got) == (where, value)


def test_points_a_tenth_of_a_millimetre_apart_are_far_enough_and_a_thin_sleeve_holds_a_thinner_wire():
    assert wire([(0, 0), (0.1, 0)], 1.01, 1)[0]["length_mm"] == 0.1
