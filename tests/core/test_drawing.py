"""Drawings are to scale and true: projections of known solids, what is in front, colours by share."""

import math
from types import SimpleNamespace

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.larger import larger
from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.surface import Coat, Zone, eye_of, fuzz, hairs_each, under
from wembit.core.drawing.views import Dress, view
from wembit.core.pose.gaze import VIEWS
from wembit.core.pose.placing import PlacedPart, Seat, place, settle
from wembit.core.shape import solids
from wembit.demo.figures import FIGURES


def standing(shape: dict, pitch: float = 0, centre: float = 50) -> PlacedPart:
    """One part alone, its axis at that pitch, its middle so high over the ground."""
    seat = {"on": None, "centre_mm": centre, "pitch": pitch, "yaw": 0}
    return PlacedPart("one", 1, solids.solid(SHAPE(shape, "shape")), Seat.of(seat))


def drawn(parts, which="side", **dresses):
    return view(place(parts), {part.name: dresses.get(part.name, Dress("#888888")) for part in parts}, which)


def area(rings) -> float:
    return sum(shapely.Polygon(ring).area for ring in rings)


def extent(found) -> tuple[float, float]:
    """Width and height of what is felted, without the fuzz that stands out of it."""
    across = [u for piece in found.pieces for ring in piece.rings for u, _ in ring]
    up = [v for piece in found.pieces for ring in piece.rings for _, v in ring]
    return max(across) - min(across), max(up) - min(up)


sizes = st.floats(4, 120)


@settings(max_examples=25)
@given(sizes, sizes, sizes, st.sampled_from(["side", "front"]))
def test_an_ellipsoid_is_drawn_as_its_ellipse(long, wide, high, which):
    shape = {"kind": "ellipsoid", "length_mm": long, "width_mm": wide, "height_mm": high}
    found = drawn([standing(shape)], which)
    across = long if which == "side" else wide
    assert extent(found) == pytest.approx((across, high), rel=0.02)
    assert area(found.pieces[0].rings) == pytest.approx(math.pi * across * high / 4, rel=0.02)  # the area of an ellipse


@settings(max_examples=25)
@given(st.floats(4, 30), st.floats(1, 4), st.floats(-90, 90))
def test_a_capsule_keeps_its_shadow_however_it_leans(thick, times, pitch):
    """From the side a capsule is a stadium: a rectangle with two half circles, at any pitch."""
    long = thick * times
    found = drawn([standing({"kind": "capsule", "diameter_mm": thick, "length_mm": long}, pitch)])
    stadium = thick * (long - thick) + math.pi * thick**2 / 4
    assert area(found.pieces[0].rings) == pytest.approx(stadium, rel=0.03)
    rise = (long - thick) * abs(math.sin(math.radians(pitch))) + thick
    assert extent(found)[1] == pytest.approx(rise, rel=0.03)


@settings(max_examples=20)
@given(st.floats(0.3, 4))
def test_a_figure_twice_as_large_is_drawn_twice_as_large(scale):
    shape = {"kind": "frustum", "diameter1_mm": 30, "diameter2_mm": 12, "length_mm": 50}
    one = standing(shape, 70)
    two = PlacedPart("one", 1, one.shape.scaled(scale), larger(one.seat, scale))
    before, after = drawn([one]), drawn([two])
    assert extent(after) == pytest.approx(tuple(scale * each for each in extent(before)), rel=0.01)
    assert area(after.pieces[0].rings) == pytest.approx(scale**2 * area(before.pieces[0].rings), rel=0.01)


def test_a_slab_shows_its_outline_or_its_edge_by_its_face():
    outline = [[0, -10], [40, -10], [40, 10], [0, 10]]
    ear = {"kind": "slab", "outline": outline, "thickness_mm": 3}
    host = standing({"kind": "sphere", "diameter_mm": 40})
    seats = {"side": (800, 120), "front": (120, 800)}
    for face, (from_side, from_front) in seats.items():
        seat = {"on": "one", "t": 0.5, "angle": 0, "pitch": 90, "yaw": 0, "face": face}
        part = PlacedPart("ear", 1, solids.solid(SHAPE(ear, "shape")), Seat.of(seat))
        for which, expected in (("side", from_side), ("front", from_front)):
            found = drawn(settle([host, part]), which)
            ear_drawn = next(piece for piece in found.pieces if piece.name == "ear")
            assert area(ear_drawn.rings) == pytest.approx(expected, rel=0.05), (face, which)


@pytest.mark.parametrize("each", FIGURES, ids=lambda each: each.name)
@pytest.mark.parametrize("which", ["side", "front"])
def test_near_beads_lie_on_the_face_and_far_ones_behind_it(each, which):
    parts = settle(
        [PlacedPart(p.name, p.count, solids.solid(SHAPE(p.shape, "shape")), Seat.of(p.seat)) for p in each.parts]
    )
    eyes = [part for part in parts if part.seat.bead.mm]
    order = [piece.name for piece in view(place(parts), {p.name: Dress("#fff") for p in parts}, which).pieces]
    for eye in eyes:
        host = max(at for at, name in enumerate(order) if name == eye.seat.on)
        over = [at > host for at, name in enumerate(order) if name == eye.name]
        if order.count(eye.seat.on) == 1:
            assert over == ([True, True] if which == "front" else [False, True]), (each.name, which)


def test_a_figure_from_the_front_is_its_own_mirror():
    hare = next(figure for figure in FIGURES if figure.name.startswith("Hare"))
    parts = settle(
        [PlacedPart(p.name, p.count, solids.solid(SHAPE(p.shape, "shape")), Seat.of(p.seat)) for p in hare.parts]
    )
    found = view(place(parts), {p.name: Dress("#fff") for p in parts}, "front")
    left, _, right, _ = found.bounds
    assert left == pytest.approx(-right, abs=0.5)
    whole = shapely.union_all([shapely.Polygon(ring) for piece in found.pieces for ring in piece.rings])
    mirrored = shapely.affinity.scale(whole, xfact=-1, origin=(0, 0))
    assert whole.symmetric_difference(mirrored).area < 0.01 * whole.area


@pytest.mark.parametrize("share", [0.25, 0.4, 0.5, 0.8])
def test_a_belly_covers_more_of_the_picture_the_larger_its_share(share):
    ball = standing({"kind": "sphere", "diameter_mm": 40})
    found = drawn([ball], one=Dress("#b08a5e", zones=(under("#f1ede3", share),)))
    piece = found.pieces[0]
    belly = sum(area(rings) for paint, rings in piece.zones if paint == "#f1ede3")
    # a zone is a lune round the axis; its edge, seen from the side, is half an ellipse of semi-axes r and r cos πs
    assert belly == pytest.approx(math.pi * 20**2 / 2 * (1 - math.cos(math.pi * share)), rel=0.05)


def test_a_belly_has_no_hole():
    """Neighbouring strips of this very body were once lost in their union."""
    otter = next(figure for figure in FIGURES if figure.name.startswith("Otter"))
    body = next(p for p in otter.parts if p.name == "body")
    part = PlacedPart("one", 1, solids.solid(SHAPE(body.shape, "shape")), Seat.of(body.seat))
    for share in (0.2, 0.25, 0.3, 0.35, 0.4):
        found = drawn([part], "front", one=Dress("#4a382b", zones=(under("#d9c7a0", share),)))
        assert len(found.pieces[0].zones[0][1]) == 1, share


def test_a_coat_stands_out_as_far_as_its_locks():
    ball = standing({"kind": "sphere", "diameter_mm": 40})
    bare = drawn([ball])
    coated = drawn([ball], one=Dress("#4a382b", coats=(Coat(Zone("#4a382b", 0, 1), 12),)))
    tips = [math.hypot(u, v - 20) for _, ways in coated.pieces[0].hairs for way in ways for u, v in way]
    assert 20 + 12 * 0.8 < max(tips) < 20 + 12 * 1.3
    assert coated.bounds[3] > bare.bounds[3] + 6


def test_nothing_is_drawn_of_nothing():
    assert view([], {}, "side").bounds == (0, 0, 0, 0)


@pytest.mark.parametrize("which", ["side", "front"])
def test_what_is_sunk_into_a_host_is_not_drawn(which):
    """A leg that goes up into a belly shows only below it."""
    belly = standing({"kind": "ellipsoid", "length_mm": 80, "width_mm": 40, "height_mm": 40})
    seat = Seat.of({"on": "one", "t": 0.5, "angle": 180, "pitch": -90, "sink": 25})
    leg = PlacedPart("leg", 1, solids.solid(SHAPE({"kind": "cylinder", "diameter_mm": 6, "length_mm": 60}, "s")), seat)
    found = {piece.name: piece for piece in drawn([belly, leg], which).pieces}
    assert area(found["leg"].rings) == pytest.approx(6 * (60 - 25), rel=0.08)
    assert area(found["one"].rings) == pytest.approx(math.pi / 4 * (80 if which == "side" else 40) * 40, rel=0.02)


def test_a_piece_behind_is_painted_before_what_it_sits_on():
    parts = [standing({"kind": "sphere", "diameter_mm": 60})]
    shape = solids.solid(SHAPE({"kind": "sphere", "diameter_mm": 16}, "s"))
    for name, angle in (("near", 90), ("far", -90)):
        parts.append(PlacedPart(name, 1, shape, Seat.of({"on": "one", "t": 0.5, "angle": angle, "by": 0.5, "sink": 4})))
    order = [piece.name for piece in drawn(parts).pieces]
    assert sorted(order.index(name) - order.index("one") > 0 for name in ("near", "far")) == [False, True]


@pytest.mark.parametrize(("looks", "across", "up"), [(0, 1, 0), (90, 0, 1), (180, -1, 0)])
@pytest.mark.parametrize(("which", "mirror"), [("side", 1), ("front", 1), ("front", -1)])
def test_an_eye_glints_where_it_looks_and_a_lid_covers_its_share(looks, across, up, which, mirror):
    ring = [(10 + 2 * math.cos(a), 5 + 2 * math.sin(a)) for a in np.linspace(0, 2 * math.pi, 40)]
    piece = SimpleNamespace(seat=Seat.of({"bead_mm": 4, "gaze": looks, "lid": 0.25}), mirror=mirror)
    (white, glint), (paint, lid) = eye_of(piece, ring, "#8a6040", VIEWS[which])
    middle = np.mean(glint[0], axis=0) - (10, 5)
    assert white == "#ffffff"
    turned = across * (mirror if which == "front" else 1)
    assert middle / np.hypot(*middle) == pytest.approx((turned, up), abs=0.02), "each eye of a pair to its own side"
    assert paint == "#8a6040"
    low, high = min(y for _, y in lid[0]), max(y for _, y in lid[0])
    assert (low, high) == pytest.approx((7 - 0.25 * 4, 7), abs=0.02), "a quarter of its height, from the top"
    assert eye_of(SimpleNamespace(seat=Seat.of({"bead_mm": 4}), mirror=1), ring, "", VIEWS["side"]) == []


def test_the_stray_fibres_of_an_edge_hang_on_nothing_but_that_edge():
    """Two workers, and one that has drawn some of the pieces before, draw the same."""
    one, other = (shapely.Point(0, 0).buffer(radius) for radius in (20, 7))
    alone, together = fuzz([one], 56)[0], fuzz([other, one, other], 56)
    assert together[1] == alone
    assert together[0] == together[2] == fuzz([other], 56)[0]
    assert len(alone) == 56
    assert [len(fuzz([one], most)[0]) for most in (40, 20)] == [40, 20]
    tips = np.array(alone)[:, 1]
    out = np.hypot(*tips.T) - 20
    assert 0 < out.min() < 0.7 < out.max() < 3, "some short, some long, none of them alike"
    assert len({round(float(each), 3) for each in out}) > 45


def test_a_piece_more_leaves_the_others_as_hairy_as_they_were():
    each = [hairs_each(pieces) for pieces in range(1, 80)]
    assert each == sorted(each, reverse=True)
    assert set(each) == {56, 40, 28, 20}
    assert all(hairs * pieces <= 1600 for pieces, hairs in enumerate(each, 1))
