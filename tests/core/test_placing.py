"""Where parts are, and how they are drawn: the eight demo figures stand as they should."""

import dataclasses

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.larger import larger
from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.surface import under
from wembit.core.drawing.views import Dress, view
from wembit.core.errors import BadInput
from wembit.core.pose.mesh import surface
from wembit.core.pose.placing import PlacedPart, Seat, place, settle, standing_angles
from wembit.core.shape import solids
from wembit.demo.figures import FIGURES

# Extents (left, right, top) from the side of figures drawn once from the same sizes by another program
EXTENTS = {
    "Hare, crouched": (-54, 66, 118),
    "Snail": (-26, 34, 41),
    "Heron": (-59, 102, 200),
    "Hedgehog": (-35, 51, 48),
    "Otter, upright": (-87, 52, 140),
    "Hermit crab": (-39, 66, 66),
    "Lighthouse": (-35, 33, 150),
}


def parts_of(figure):
    return [PlacedPart(p.name, p.count, solids.solid(SHAPE(p.shape, "shape")), Seat.of(p.seat)) for p in figure.parts]


def figure(name):
    return next(other for other in FIGURES if other.name == name)


def points(pieces):
    return np.vstack([surface(piece).reshape(-1, 3) for piece in pieces if not piece.seat.line.kind])


@pytest.mark.parametrize("name", EXTENTS)
def test_the_demo_figures_have_the_extents_they_were_checked_with(name):
    found = points(place(settle(parts_of(figure(name)))))
    left, right, top = EXTENTS[name]
    assert found[:, 0].min() == pytest.approx(left, abs=3)
    assert found[:, 0].max() == pytest.approx(right, abs=3)
    assert found[:, 2].max() == pytest.approx(top, abs=2)
    assert abs(found[:, 2].min()) <= 3  # feet stand on the ground


@pytest.mark.parametrize("each", FIGURES, ids=lambda each: each.name)
def test_every_piece_is_placed_and_pairs_are_mirrored(each):
    pieces = place(settle(parts_of(each)))
    for part in each.parts:
        mine = [piece for piece in pieces if piece.name == part.name]
        assert len(mine) == part.count
        if part.count == 2:
            one, two = (piece.joints[0] for piece in mine)
            assert one[0] == pytest.approx(two[0])
            assert one[1] == pytest.approx(-two[1])
            assert one[2] == pytest.approx(two[2])


def test_a_hare_has_ears_where_a_hare_has_ears():
    pieces = place(settle(parts_of(figure("Hare, crouched"))))
    ear = next(piece for piece in pieces if piece.name == "ear")
    head = points([piece for piece in pieces if piece.name == "head"])
    tail = points([piece for piece in pieces if piece.name == "tail"])
    assert ear.joints[1][2] > head[:, 2].max() > ear.joints[0][2] - 6  # up out of the head
    assert ear.joints[1][0] < ear.joints[0][0]  # leaning back
    assert tail[:, 0].max() < head[:, 0].min()


def test_what_moves_takes_along_what_sits_on_it():
    parts = settle(parts_of(figure("Hare, crouched")))
    raised = [
        dataclasses.replace(p, seat=dataclasses.replace(p.seat, pitch=30.0)) if p.name == "body" else p for p in parts
    ]
    before, after = ({piece.name: piece for piece in place(each)} for each in (parts, raised))
    assert after["ear"].joints[0][2] > before["ear"].joints[0][2] + 10
    pitch_before, pitch_after = (standing_angles(each["head"])[0] for each in (before, after))
    assert pitch_after - pitch_before == pytest.approx(22, abs=0.1)  # 8° to 30°


@given(st.floats(0.2, 5))
def test_a_scaled_figure_is_the_same_figure_larger(s):
    parts = settle(parts_of(figure("Snail")))
    grown = [PlacedPart(p.name, p.count, p.shape.scaled(s), larger(p.seat, s)) for p in parts]
    for one, two in zip(place(parts), place(grown), strict=True):
        if isinstance(one.part.shape, solids.Nothing):
            continue
        assert np.allclose(two.joints[0], one.joints[0] * s, atol=1e-6 * max(1, s) + 0.3 * abs(s - 1))


def test_a_seat_on_nothing_and_a_ring_are_told():
    ball = solids.Sphere(10)
    with pytest.raises(BadInput, match="not there"):
        place([PlacedPart("a", 1, ball, Seat(on="b"))])
    ring = [PlacedPart("a", 1, ball, Seat(on="b")), PlacedPart("b", 1, ball, Seat(on="a"))]
    with pytest.raises(BadInput, match="ring"):
        place(ring)


@pytest.mark.parametrize("each", FIGURES, ids=lambda each: each.name)
@pytest.mark.parametrize("which", ["side", "front"])
def test_a_drawing_is_true_to_size(each, which):
    pieces = place(settle(parts_of(each)))
    dresses = {part.name: Dress("#999999", (under("#ffffff", 0.3),)) for part in each.parts}
    found = view(pieces, dresses, which)
    left, bottom, right, top = found.bounds
    flat = points(pieces)
    axis = 0 if which == "side" else 1
    assert bottom == 0
    assert right - left == pytest.approx(flat[:, axis].max() - flat[:, axis].min(), abs=0.01)
    assert top == pytest.approx(flat[:, 2].max() - flat[:, 2].min(), abs=0.01)
    assert {piece.name for piece in found.pieces} == {part.name for part in each.parts}


def test_the_nearer_piece_is_painted_later():
    far = PlacedPart("far", 1, solids.Sphere(40), Seat(centre_mm=20))
    near = PlacedPart("near", 2, solids.Sphere(10), Seat(on="far", t=0.5, angle=90, by=0.5))
    order = [piece.name for piece in view(place([far, near]), {}, "side").pieces]
    assert order == ["near", "far", "near"]  # one of the pair behind, one before


def test_an_empty_figure_is_an_empty_picture():
    assert view([], {}, "side").bounds == (0, 0, 0, 0)


def test_further_pieces_grow_with_the_figure():
    ball = solids.Sphere(40)
    seat = Seat.of({"on": "body", "t": 0.5, "angle": 90, "sink": 2, "copies": [{"t": 0.2, "sink": 6}, {"t": 0.8}]})
    parts = [PlacedPart("body", 1, ball, Seat(centre_mm=20)), PlacedPart("spot", 2, solids.Sphere(5), seat)]
    twice = [PlacedPart(part.name, part.count, part.shape.scaled(2), larger(part.seat, 2)) for part in parts]
    for one, two in zip(place(parts), place(twice), strict=True):
        assert np.allclose(np.array(one.joints) * 2, two.joints)


def test_a_seat_keeps_what_is_not_changed():
    seat = Seat.of({"on": "head", "bead_mm": 4, "lid": 0.3, "sink": 1})
    changed = seat.changed({"gaze": 20, "sink": 2})
    assert (changed.bead.mm, changed.bead.lid, changed.bead.gaze, changed.sink_mm, changed.on) == (
        4,
        0.3,
        20,
        2,
        "head",
    )
