"""A hand and a coin to see a size by."""

from __future__ import annotations

from shapely.geometry import LineString, Point

from wembit.core.pose.mesh import Ring, rings_of, together

LENGTH_MM, BREADTH_MM, COIN_MM = 180.0, 84.0, 23.0  # a grown person's hand, about; from memory
# fingers and thumb as (root x, root y, tip x, tip y, thickness), the wrist's middle at 0, 0; in mm
FINGERS = (
    (-30, 88, -40, 142, 16), (-10, 96, -13, 164, 18), (11, 96, 13, 171, 18), (31, 88, 37, 152, 17),
    (38, 34, 76, 82, 20),
)  # fmt: skip


def hand() -> list[Ring]:
    """The outline of an open hand standing on its wrist, LENGTH_MM high, x from its middle, y up."""
    palm = Point(0, 50).buffer(40, quad_segs=12).union(LineString([(0, 12), (0, 70)]).buffer(36, quad_segs=12))
    fingers = [LineString([(a, b), (c, d)]).buffer(thick / 2, quad_segs=8) for a, b, c, d, thick in FINGERS]
    whole = together([palm, *fingers]).buffer(5).buffer(-10).buffer(5)
    _, bottom, _, top = whole.bounds
    return [[(x, (y - bottom) * LENGTH_MM / (top - bottom)) for x, y in ring] for ring in rings_of(whole)]
