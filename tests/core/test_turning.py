"""A figure looked at from anywhere: the gaze, its views, what lies on the ground, and the faces that a browser turns."""

import math
from collections import Counter
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation
from shapely.geometry import Polygon
from shapely.ops import unary_union

from wembit.core.body_plans.every_plan import PLANS
from wembit.core.body_plans.plan import stored
from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.ground import SOFT_MM, ground_of, seen_from
from wembit.core.drawing.marks import Mark, Spots
from wembit.core.drawing.scale_objects import COIN_MM
from wembit.core.drawing.surface import Coat, Zone, under
from wembit.core.drawing.turning_mesh import MOST_LOCKS, turned
from wembit.core.drawing.views import Dress, grounded, view
from wembit.core.pose.gaze import VIEWS, Gaze
from wembit.core.pose.mesh import surface
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.shape.solids import solid
from wembit.demo.figures import FIGURES

GAZES = st.builds(Gaze, st.floats(-720, 720), st.floats(-90, 90))
EVERY = {figure.name: figure.parts for figure in FIGURES} | {key: plan.parts for key, plan in PLANS.items()}


def pieces_of(name):
    parts = [
        PlacedPart(part["key"], part["count"], solid(SHAPE(part["shape"], "s")), Seat.of(part["seat"]))
        for part in stored(EVERY[name])
    ]
    return grounded(place(parts))


def one(shape, **seat):
    return grounded(
        place([PlacedPart("one", 1, solid(SHAPE(shape, "s")), Seat.of({"on": None, "centre_mm": 30, **seat}))])
    )


def silhouette(pieces, gaze):
    seen = view(pieces, {}, gaze)
    rings = [Polygon(ring).buffer(0) for piece in seen.pieces for ring in piece.rings if len(ring) > 2]
    return unary_union(rings), seen.bounds


@given(GAZES)
def test_a_gaze_is_the_side_turned_round_and_tilted(gaze):
    # by scipy's rotations: round the upright, then about the right hand
    turn = Rotation.from_euler("z", gaze.turn, degrees=True)
    right, up, near = (turn.apply(v) for v in ([1, 0, 0], [0, 0, 1], [0, -1, 0]))
    tilt = Rotation.from_rotvec(-right * math.radians(gaze.tilt))
    assert gaze.right == pytest.approx(right, abs=1e-9)
    assert gaze.up == pytest.approx(tilt.apply(up), abs=1e-9)
    assert gaze.near == pytest.approx(tilt.apply(near), abs=1e-9)
    assert np.cross(gaze.right, gaze.up) == pytest.approx(gaze.near, abs=1e-9)


def test_the_named_views_look_from_where_they_say():
    near = {name: gaze.near.tolist() for name, gaze in VIEWS.items()}
    assert near == {"side": [0, -1, 0], "front": [1, 0, 0], "back": [-1, 0, 0], "other side": [0, 1, 0], "above": [0, 0, 1],
                    "below": [0, 0, -1]}  # fmt: skip
    assert VIEWS["above"].right.tolist() == [1, 0, 0]


@settings(max_examples=12)
@given(st.sampled_from(sorted(EVERY)), GAZES)
def test_from_the_opposite_side_an_outline_is_the_mirror_of_itself(name, gaze):
    pieces = pieces_of(name)
    one_way, (left, _, right, _) = silhouette(pieces, gaze)
    other, (left2, _, right2, _) = silhouette(pieces, Gaze(gaze.turn + 180, -gaze.tilt))
    assert other.area == pytest.approx(one_way.area, rel=2e-3)
    assert (left2, right2) == pytest.approx((-right, -left), abs=1e-6)


@pytest.mark.sampled("figures from everywhere", 6)
@pytest.mark.parametrize("name", sorted(EVERY))
def test_every_figure_is_drawn_from_everywhere(name):
    pieces = pieces_of(name)
    for gaze in (*VIEWS.values(), Gaze(35, 20), Gaze(200, -35)):
        seen = view(pieces, {}, gaze)
        assert len(seen.pieces) == len(pieces)
        left, bottom, right, top = seen.bounds
        points = np.concatenate([surface(p).reshape(-1, 3) for p in pieces if surface(p).shape[1] > 1])
        flat = gaze.flat(points)
        assert (right, top) == pytest.approx(tuple(flat.max(axis=0)), abs=1e-6)
        assert (left, bottom) == pytest.approx(tuple(flat.min(axis=0)), abs=1e-6)


def test_a_ball_is_round_from_everywhere_and_an_egg_is_not():
    for gaze in (Gaze(20, 30), Gaze(140, -60), VIEWS["above"]):
        outline, _ = silhouette(one({"kind": "sphere", "diameter_mm": 40}), gaze)
        assert outline.area == pytest.approx(math.pi * 400, rel=0.02)
    egg = one({"kind": "ellipsoid", "length_mm": 60, "width_mm": 30, "height_mm": 40})
    areas = [silhouette(egg, VIEWS[name])[0].area for name in ("side", "front", "above")]
    assert areas == pytest.approx([math.pi / 4 * 60 * 40, math.pi / 4 * 30 * 40, math.pi / 4 * 60 * 30], rel=0.02)


def test_the_shadow_is_what_is_seen_from_above_and_the_coin_is_a_coin():
    ground = ground_of(one({"kind": "sphere", "diameter_mm": 40}))
    assert Polygon(ground.shadow[0]).area == pytest.approx(math.pi * (20 + SOFT_MM) ** 2, rel=0.03)
    assert Polygon(ground.coin).area == pytest.approx(math.pi * COIN_MM**2 / 4, rel=0.01)
    assert not Polygon(ground.coin).intersects(Polygon(ground.shadow[0])), "beside it"
    assert ground.height == pytest.approx(40, abs=0.1)
    reach = max(math.hypot(*point) for point in ground.coin)
    assert ground.radius == pytest.approx(reach, abs=0.05)
    assert seen_from([ground.coin], VIEWS["below"]) == []
    flat = np.array(seen_from([ground.coin], VIEWS["side"])[0])
    assert np.ptp(flat[:, 1]) == pytest.approx(0, abs=1e-9), "from level a coin is a line"
    above = np.array(seen_from([ground.coin], VIEWS["above"])[0])
    assert np.ptp(above, axis=0) == pytest.approx((COIN_MM, COIN_MM), rel=0.01)
    assert ground_of([]).shadow == []


def volume_and_edges(found):
    """Volume of each closed run of faces, and how often each of its edges is walked which way."""
    points, at = np.concatenate(found.points), 0
    for count, _ in found.pieces:
        faces = found.faces[at : at + count]
        at += count
        if count == 1:
            continue
        volume, edges = 0.0, Counter()
        for _, ring in faces:
            corner = points[ring]
            volume += sum(float(corner[0] @ np.cross(a, b)) for a, b in pairwise(corner[1:])) / 6
            edges.update(zip(ring, [*ring[1:], ring[0]], strict=True))
        yield volume, edges


SOLIDS = [
    ({"kind": "sphere", "diameter_mm": 40}, 0.06),
    ({"kind": "ellipsoid", "length_mm": 60, "width_mm": 30, "height_mm": 40}, 0.06),
    ({"kind": "capsule", "diameter_mm": 20, "length_mm": 60}, 0.08),
    ({"kind": "cone", "diameter_mm": 30, "length_mm": 40}, 0.06),
    ({"kind": "box", "length_mm": 30, "width_mm": 20, "height_mm": 10}, 0.12),
    ({"kind": "torus", "outer_diameter_mm": 50, "tube_diameter_mm": 12}, 0.12),
    ({"kind": "slab", "outline": [[0, -5], [30, -5], [40, 0], [30, 5], [0, 5]], "thickness_mm": 4}, 1e-6),
]  # fmt: skip


@pytest.mark.parametrize(("shape", "off"), SOLIDS)
@pytest.mark.parametrize("yaw", [0, 130])
def test_the_faces_of_a_solid_close_round_its_volume_and_turn_outwards(shape, off, yaw):
    pieces = one(shape, yaw=yaw, pitch=20)
    (volume, edges), *rest = list(volume_and_edges(turned(pieces, {})))
    assert not rest
    assert volume == pytest.approx(solid(SHAPE(shape, "s")).volume, rel=off)
    if shape["kind"] not in ("sphere", "ellipsoid", "capsule", "cone"):  # there rings end in a point
        assert all(edges[b, a] == n for (a, b), n in edges.items()), "each edge is walked once each way"


@pytest.mark.sampled("figures outwards", 6)
@pytest.mark.parametrize("name", sorted(EVERY))
def test_every_piece_of_every_figure_turns_its_faces_outwards_and_is_light_enough_to_send(name):
    pieces = pieces_of(name)
    found = turned(pieces, {})
    assert all(volume >= -1e-6 for volume, _ in volume_and_edges(found))
    assert sum(count for count, _ in found.pieces) == len(found.faces)
    assert sum(found.bands) == len(found.faces)
    assert len(found.faces) <= 250 * len(pieces)


def test_zones_marks_spots_and_locks_go_along():
    pieces = one({"kind": "ellipsoid", "length_mm": 60, "width_mm": 40, "height_mm": 40})
    dress = Dress(
        "#aaaaaa", zones=(under("#ffffff", 0.5),), coats=(Coat(Zone("#333333", 0.0, 0.25), 10.0),),
        spots=(Spots("#ff0000", 5, ((0.5, 90.0), (0.5, -90.0))),), marks=(Mark("#0000ff", 20, 8, 0.5, 45),),
    )  # fmt: skip
    found = turned(pieces, {"one": dress})
    points = np.concatenate(found.points)
    middle = {
        paint: np.mean([points[ring].mean(axis=0) for p, ring in found.faces if p == paint], axis=0)
        for paint, _ in found.faces
    }
    centre = points[: found.count].mean(axis=0)
    assert middle["#ffffff"][2] < pieces[0].joints[0][2] < middle["#333333"][2], "the belly below, the coat above"
    assert sum(paint == "#ff0000" for paint, _ in found.faces) == 2
    assert middle["#0000ff"][1] > centre[1], "on its own side"
    locks = [stroke for stroke in found.strokes if stroke[0] == "#333333"]
    assert 30 < len(locks) <= 2 * MOST_LOCKS
    assert all(len(ring) == 2 for _, _, ring in locks)


def test_a_flat_piece_carries_its_marks_on_both_faces_and_each_face_lies_on_it():
    """What goes over an end lies on both faces, as in the views; a mark in the middle on the one that is seen."""
    outline = [[0, -5], [30, -5], [40, 0], [30, 5], [0, 5]]
    pieces = one({"kind": "slab", "outline": outline, "thickness_mm": 4})
    tip, middle = Mark("#0000ff", 20, 8, 1.0, 0), Mark("#ff0000", 6, 4, 0.4, 0)
    dress = Dress("#aaaaaa", marks=(tip, middle), spots=(Spots("#00ff00", 3, ((0.5, 90.0),)),))
    found = turned(pieces, {"one": dress})
    points = np.concatenate(found.points)
    front, back = surface(pieces[0])[:2]
    normal = front.mean(axis=0) - back.mean(axis=0)
    normal /= np.linalg.norm(normal)
    high, low = float(front.mean(axis=0) @ normal), float(back.mean(axis=0) @ normal)
    on = {paint: [] for paint in ("#0000ff", "#ff0000", "#00ff00")}
    for paint, ring in found.faces:
        if paint in on:
            flat = points[ring] @ normal
            assert np.ptp(flat) == pytest.approx(0, abs=0.5)
            on[paint].append(float(flat.mean()))
    assert min(on["#0000ff"]) <= low + 0.5, "the tip on the back"
    assert max(on["#0000ff"]) >= high - 0.5, "and on the front"
    assert on["#ff0000"]
    assert on["#00ff00"]


def test_what_goes_over_an_end_colours_the_skin_there_and_nowhere_else():
    pieces = one({"kind": "ellipsoid", "length_mm": 60, "width_mm": 40, "height_mm": 40})
    found = turned(pieces, {"one": Dress("#aaaaaa", marks=(Mark("#0000ff", 24, 24, 1.0, 0),))})
    points = np.concatenate(found.points)
    foot, tip = pieces[0].joints[0], pieces[0].joints[-1]
    along = lambda ring: float((points[ring].mean(axis=0) - foot) @ (tip - foot) / ((tip - foot) @ (tip - foot)))  # noqa: E731
    tinted = [along(ring) for paint, ring in found.faces if paint == "#0000ff"]
    plain = [along(ring) for paint, ring in found.faces if paint == "#aaaaaa"]
    assert tinted
    assert min(tinted) > max(plain) - 0.1
