"""Templates at true size."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon, box
from shapely.ops import unary_union

from wembit.core.contract.requests import SHAPE
from wembit.core.drawing import templates
from wembit.core.drawing.templates import CHECK_MM, PAPERS, Template, bent, lay_out
from wembit.core.shape import solids


def template(wide, tall, name="ear"):
    return Template(name, "3 mm thick", box(0, 0, wide, tall))


def extents(piece):
    points = [point for ring in [*piece.rings, *piece.lines] for point in ring]
    xs, ys = zip(*points, strict=True)
    return min(xs), min(ys), max(xs), max(ys)


# ISO 216: A4 is 210 × 297 mm; ANSI Y14.1: letter is 8.5 × 11 in
def test_papers_are_the_standard_ones():
    assert PAPERS["A4"] == (210, 297)
    assert PAPERS["letter"] == pytest.approx((8.5 * 25.4, 11 * 25.4))


@settings(max_examples=40)
@given(
    st.lists(st.tuples(st.floats(3, 180), st.floats(3, 180)), min_size=1, max_size=12), st.sampled_from(list(PAPERS))
)
def test_what_fits_keeps_its_size_on_the_paper_and_apart_from_the_rest(sizes, paper):
    found = lay_out([template(*size, name=str(n)) for n, size in enumerate(sizes)], paper)
    seen = {}
    for sheet in found:
        taken = []
        for piece in sheet.pieces:
            left, top, right, bottom = extents(piece)
            assert left >= 0
            assert top >= 0
            assert right <= sheet.width
            assert bottom <= sheet.check[0][1]
            assert not any(box(left, top, right, bottom).intersection(other).area > 1e-6 for other in taken)
            taken.append(box(left, top, right, bottom))
            seen[int(piece.name)] = sorted((right - left, bottom - top))
    assert all(seen[n] == pytest.approx(sorted(size), abs=1e-6) for n, size in enumerate(sizes))


@settings(max_examples=20)
@given(st.floats(280, 900), st.floats(200, 700))
def test_what_is_larger_is_split_and_comes_together_again(wide, tall):
    ring = LineString(box(0, 0, wide, tall).exterior)
    found = lay_out([template(wide, tall)])
    assert len(found) > 1
    assert all(sheet.tile for sheet in found)
    drawn = sum(LineString(line).length for sheet in found for piece in sheet.pieces for line in piece.lines)
    assert drawn >= ring.length - 1e-6, "no stretch of the outline is lost"


def test_every_sheet_has_its_line_of_100_mm():
    for sheet in lay_out([template(180, 200, str(n)) for n in range(3)]):
        (x1, y1), (x2, y2) = sheet.check
        assert x2 - x1 == CHECK_MM
        assert y1 == y2
        assert x2 < sheet.width


@pytest.mark.parametrize(
    ("shape", "wide", "tall"),
    [
        ({"kind": "sphere", "diameter_mm": 30}, 30, 30),
        ({"kind": "ellipsoid", "length_mm": 60, "width_mm": 20, "height_mm": 40}, 60, 40),
        ({"kind": "dome", "diameter_mm": 40, "height_mm": 15}, 15, 40),
        ({"kind": "dome", "diameter_mm": 40, "height_mm": 30}, 30, 43.33),
        ({"kind": "frustum", "diameter1_mm": 30, "diameter2_mm": 12, "length_mm": 50}, 50, 30),
        ({"kind": "cone", "diameter_mm": 20, "length_mm": 30}, 30, 20),
        ({"kind": "cylinder", "diameter_mm": 20, "length_mm": 30}, 30, 20),
        ({"kind": "capsule", "diameter_mm": 10, "length_mm": 40}, 40, 10),
        ({"kind": "box", "length_mm": 30, "width_mm": 20, "height_mm": 10}, 30, 10),
        ({"kind": "torus", "outer_diameter_mm": 40, "tube_diameter_mm": 8}, 40, 40),
        ({"kind": "silhouette", "stations": [[0, 4], [20, 30], [50, 10]], "depth_ratio": 0.5}, 50, 30),
        ({"kind": "slab", "outline": [[0, -5], [40, -7], [40, 5], [0, 5]], "thickness_mm": 3}, 40, 12),
    ],
)  # fmt: skip
def test_a_side_outline_has_the_sizes_of_its_solid(shape, wide, tall):
    left, low, right, high = solids.solid(SHAPE(shape, "s")).side_outline().bounds
    assert right - left == pytest.approx(wide, rel=2e-3)
    assert high - low == pytest.approx(tall, rel=2e-3)


def test_a_wire_plan_is_as_long_as_its_bends():
    line = bent([(22, 0), (20, 65), (24, 50)], 66)
    assert line.length == pytest.approx(66)
    assert len(line.coords) == 4
    assert bent([], 30).length == 30


def test_the_area_of_a_ring_is_that_of_the_tube_seen_from_above():
    shape = solids.solid(SHAPE({"kind": "torus", "outer_diameter_mm": 40, "tube_diameter_mm": 8}, "s"))
    assert shape.side_outline().area == pytest.approx(3.14159 * (20**2 - 12**2), rel=2e-3)
    assert isinstance(unary_union([shape.side_outline()]), Polygon)
    assert templates.GAP > 0
