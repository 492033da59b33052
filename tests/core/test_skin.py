"""What joins hide, how long borders are, what a loose end takes, spots evenly laid, pinches as a group."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from wembit.core.contract.requests import SHAPE
from wembit.core.grams import details, small_pieces
from wembit.core.pose.mesh import UP
from wembit.core.pose.placing import PlacedPart, Seat, place, settle
from wembit.core.pose.skin import border_mm, inside, loose_end_mm3, skin_points, visible_shares
from wembit.core.shape.solids import solid
from wembit.demo.figures import FIGURES


def shape(kind, **sizes):
    return solid(SHAPE({"kind": kind, **sizes}, "shape"))


def ball(name, diameter, **seat):
    return PlacedPart(name, 1, shape("sphere", diameter_mm=diameter), Seat.of({"on": None, "centre_mm": 50, **seat}))


@settings(max_examples=30)
@given(st.floats(8, 60), st.floats(0.05, 0.95))
def test_a_ball_sunk_into_a_ball_loses_a_cap(diameter, depth):
    # the area of a spherical cap is π·d·h (Bronshtein & Semendyayev, solid geometry); two equal balls, centres apart by
    # d·(1 − depth): each hides a cap of height d·depth/2
    parts = [ball("one", diameter), ball("two", diameter, on="one", t=1, angle=None, pitch=0, sink=diameter * depth)]
    shares = visible_shares(place(parts))
    assert shares["one"] == pytest.approx(1 - depth / 2, abs=0.05)
    assert shares["two"] == pytest.approx(1 - depth / 2, abs=0.05)


@pytest.mark.parametrize(
    "kind",
    [
        shape("sphere", diameter_mm=30), shape("ellipsoid", length_mm=60, width_mm=30, height_mm=40),
        shape("frustum", diameter1_mm=30, diameter2_mm=12, length_mm=40), shape("cone", diameter_mm=20, length_mm=30),
        shape("box", length_mm=30, width_mm=20, height_mm=10), shape("torus", outer_diameter_mm=40, tube_diameter_mm=8),
        shape("wrap", length_mm=70, diameter_mm=10, wire_mm=1), shape("capsule", diameter_mm=10, length_mm=40),
        shape("silhouette", stations=[[0, 4], [20, 30], [50, 36], [80, 10]], depth_ratio=0.8),
        shape("dome", diameter_mm=40, height_mm=15),
    ],
    ids=lambda each: type(each).__name__,
)  # fmt: skip
def test_the_mesh_of_a_skin_has_the_area_of_its_solid(kind):
    piece = place([PlacedPart("one", 1, kind, Seat.of({"on": None, "centre_mm": 50, "pitch": 20}))])[0]
    points, areas = skin_points(piece)
    assert areas.sum() == pytest.approx(kind.area, rel=0.05)
    middle = points.mean(axis=0) if type(kind).__name__ != "Torus" else points[0]
    assert inside(piece, np.array([middle + 1e-3 * UP, [900.0, 0, 0]])).tolist() == [True, False]


def test_a_part_alone_hides_nothing():
    assert visible_shares(place([ball("one", 30)])) == {"one": 1}


def test_joins_hide_about_what_the_demo_figures_were_estimated_with():
    """The shares estimated by eye for the demo figures, against what their seats hide."""
    gaps = []
    for figure in FIGURES:
        parts = [PlacedPart(p.name, p.count, solid(SHAPE(p.shape, "s")), Seat.of(p.seat)) for p in figure.parts]
        found = visible_shares(place(settle(parts)))
        gaps += [abs(found[p.name] - p.visible) for p in figure.parts if p.name in found and p.visible < 0.97]
    assert len(gaps) > 35
    assert np.mean(gaps) < 0.1
    assert np.quantile(gaps, 0.9) < 0.25


def test_deeper_hides_more():
    shares = [
        visible_shares(
            place([ball("body", 60), ball("head", 30, on="body", t=0.9, angle=0, pitch=60, by=0.5, sink=sink)])
        )["head"]
        for sink in (1, 4, 9, 14)
    ]
    assert shares == sorted(shares, reverse=True)


def test_the_border_of_a_ball_cut_in_half_is_a_great_circle():
    seat = Seat.of({"on": None})
    assert border_mm(shape("sphere", diameter_mm=40), seat, 0.5) == pytest.approx(math.pi * 40, rel=0.01)
    assert border_mm(shape("cylinder", diameter_mm=20, length_mm=50), seat, 0.3) == pytest.approx(100)
    assert border_mm(shape("sphere", diameter_mm=40), seat, 1.0) == 0


def test_a_loose_end_weighs_by_the_section_where_the_part_goes_in():
    leg = shape("capsule", diameter_mm=12, length_mm=60)
    assert loose_end_mm3(leg, Seat.of({"on": "body", "sink": 9}), 13) == pytest.approx(math.pi * 36 * 13)
    ear = shape("slab", outline=[[0, -5], [40, -5], [40, 5], [0, 5]], thickness_mm=3)
    assert loose_end_mm3(ear, Seat.of({"on": "head", "sink": 4}), 10) == pytest.approx(10 * 3 * 10)
    wired = shape("wrap", length_mm=70, diameter_mm=10, wire_mm=2)
    assert loose_end_mm3(wired, Seat.of({"on": "body", "sink": 5}), 10) == pytest.approx(10 * math.pi * (25 - 1))
    assert loose_end_mm3(leg, Seat.of({"on": None}), 13) == 0


# six on a ring are 60° apart, three on a side a quarter of the length  # common practice
def test_spots_are_spaced_evenly():
    ring = details.evenly(6, details.RING, 0.4)
    assert [angle for _, angle in ring] == [0, 60, 120, 180, 240, 300]
    assert {t for t, _ in ring} == {0.4}
    assert [t for t, _ in details.evenly(3, details.ROW)] == [0.25, 0.5, 0.75]


def test_one_weighed_row_of_5_cm_gives_grams_per_cm():
    assert details.grams_per_cm(0.25) == pytest.approx(0.05)  # 0.03 to 0.10 g/cm, from memory


@given(st.lists(st.tuples(st.text(min_size=1, max_size=3), st.integers(1, 8), st.floats(0.001, 0.2)), max_size=8))
def test_small_things_are_weighed_as_a_group(pieces):
    found = small_pieces.group(pieces)
    tiny = [piece for piece in pieces if piece[2] < 0.05]
    if found is None:
        assert not tiny
        return
    assert found.count == sum(count for _, count, _ in tiny)
    assert found.grams >= 0.02 * found.count - 1e-9
    assert found.pull_g == pytest.approx(2 * found.grams)  # of what is pulled half goes back  # common practice
