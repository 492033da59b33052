"""Solids of a figure's parts: each knows its sizes, volume and area, its axis and sections, and its outline from the side.

Lengths in mm, areas in mm² of the whole closed surface, volumes in mm³. Closed forms are the mensuration formulas of any
handbook; the ellipsoid's area is Carlson's symmetric integral (DLMF 19.33.1, dlmf.nist.gov).

The axis runs from the root (t 0) to the tip (t 1); a section is given by its half widths towards the top and the side.
"""

from __future__ import annotations

import itertools
import math
from bisect import bisect_right
from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from typing import TYPE_CHECKING, ClassVar, Self

from .elliptic import carlson_rg

if TYPE_CHECKING:
    from shapely.geometry import Polygon

Points = tuple[tuple[float, float], ...]
HALVES = tuple[float, float]
ROUND_STEPS = 24  # segments of a quarter of a round outline
CUTS = 17  # sections that tell a round skin


def _round(t: float) -> float:
    """Half width of a ball of radius 1 at the share t of its axis."""
    return math.sqrt(max(0.0, 1 - (2 * t - 1) ** 2))


def _disc(middle: float, radius: float) -> Polygon:
    from shapely.geometry import Point

    return Point(middle, 0).buffer(radius, quad_segs=ROUND_STEPS)


def _band(length: float, half: float) -> Polygon:
    from shapely.geometry import box

    return box(0, -half, length, half)


@dataclass(frozen=True)
class Solid:
    """Base of all solids. Every field in mm scales with the figure, `depth_ratio` and the like do not."""

    KIND: ClassVar[str] = ""
    SIZES: ClassVar[tuple[str, ...]] = ()  # its lengths by name, in the order in which they are asked
    BY_SIZES: ClassVar[bool] = True  # its sizes say all of it
    STRAIGHT: ClassVar[bool] = False  # its skin runs straight from end to end
    OPEN: ClassVar[bool] = False  # a sleeve, without ends

    @property
    def volume(self) -> float:
        raise NotImplementedError

    @property
    def area(self) -> float:
        raise NotImplementedError

    @property
    def axis_mm(self) -> float:
        """Length of the axis."""
        raise NotImplementedError

    def half_widths(self, t: float) -> HALVES:
        """Half widths at the share t of the axis, within 0 and 1: towards the top and towards the side."""
        raise NotImplementedError

    def side_outline(self) -> Polygon:
        """The outline from the side, the axis along x from its root at 0."""
        raise NotImplementedError

    @property
    def convex(self) -> bool:
        """Whether it bulges everywhere, so that its outline in any view is the hull of its points."""
        return True

    @property
    def cuts(self) -> list[float]:
        """Shares of the axis at which sections tell the skin, close together where it curves."""
        if self.STRAIGHT:
            return [0, 0.25, 0.5, 0.75, 1]
        return [(1 - math.cos(math.pi * i / (CUTS - 1))) / 2 for i in range(CUTS)]

    @property
    def sizes(self) -> dict[str, float]:
        """Its lengths by name; those of an outline and of stations are their extents."""
        return {name: getattr(self, name) for name in self.SIZES}

    def with_sizes(self, given: Mapping[str, float]) -> Self:
        """The solid with new lengths; outlines and stations are stretched to their new extents."""
        return replace(self, **{name: mm for name, mm in given.items() if name in self.SIZES})

    def scaled(self, s: float) -> Self:
        """Every length × s."""
        return replace(self, **{f.name: getattr(self, f.name) * s for f in fields(self) if f.name.endswith("_mm")})

    @property
    def longest_mm(self) -> float:
        """The largest of its sizes."""
        return max((getattr(self, f.name) for f in fields(self) if f.name.endswith("_mm")), default=0.0)


@dataclass(frozen=True)
class Sphere(Solid):
    """A ball."""

    KIND = "sphere"
    SIZES = ("diameter_mm",)

    diameter_mm: float

    @property
    def volume(self) -> float:
        return math.pi / 6 * self.diameter_mm**3

    @property
    def area(self) -> float:
        return math.pi * self.diameter_mm**2

    @property
    def axis_mm(self) -> float:
        return self.diameter_mm

    def half_widths(self, t: float) -> HALVES:
        half = self.diameter_mm / 2 * _round(t)
        return half, half

    def side_outline(self) -> Polygon:
        return _disc(self.diameter_mm / 2, self.diameter_mm / 2)


@dataclass(frozen=True)
class Ellipsoid(Solid):
    """An egg: long, wide and high, each as said."""

    KIND = "ellipsoid"
    SIZES = ("length_mm", "width_mm", "height_mm")

    length_mm: float
    width_mm: float
    height_mm: float

    @property
    def volume(self) -> float:
        return math.pi / 6 * self.length_mm * self.width_mm * self.height_mm

    @property
    def area(self) -> float:
        size = max(self.length_mm, self.width_mm, self.height_mm) / 2
        a, b, c = (each / 2 / size for each in (self.length_mm, self.width_mm, self.height_mm))
        return 4 * math.pi * size**2 * carlson_rg(a * a * b * b, a * a * c * c, b * b * c * c)

    @property
    def axis_mm(self) -> float:
        return self.length_mm

    def half_widths(self, t: float) -> HALVES:
        return self.height_mm / 2 * _round(t), self.width_mm / 2 * _round(t)

    def side_outline(self) -> Polygon:
        from shapely import affinity

        return affinity.translate(
            affinity.scale(_disc(0, 1), self.length_mm / 2, self.height_mm / 2), self.length_mm / 2
        )


@dataclass(frozen=True)
class Dome(Solid):
    """A spherical cap on its flat base; the height may exceed the radius."""

    KIND = "dome"
    SIZES = ("diameter_mm", "height_mm")

    diameter_mm: float
    height_mm: float

    @property
    def volume(self) -> float:
        return math.pi * self.height_mm / 6 * (3 * (self.diameter_mm / 2) ** 2 + self.height_mm**2)

    @property
    def area(self) -> float:
        return math.pi * (2 * (self.diameter_mm / 2) ** 2 + self.height_mm**2)

    @property
    def axis_mm(self) -> float:
        return self.height_mm

    @property
    def ball_mm(self) -> float:
        """Radius of the ball that it is cut from."""
        r, h = self.diameter_mm / 2, self.height_mm
        return (r * r + h * h) / (2 * h)

    def half_widths(self, t: float) -> HALVES:
        h, ball = self.height_mm, self.ball_mm
        half = math.sqrt(max(0.0, ball**2 - (t * h - (h - ball)) ** 2))
        return half, half

    def side_outline(self) -> Polygon:
        from shapely.geometry import box

        h, ball = self.height_mm, self.ball_mm
        return _disc(h - ball, ball).intersection(box(0, -2 * ball, h, 2 * ball))


@dataclass(frozen=True)
class Frustum(Solid):
    """A cone cut off: across at its root and at its tip."""

    KIND = "frustum"
    SIZES = ("diameter1_mm", "diameter2_mm", "length_mm")
    STRAIGHT = True

    diameter1_mm: float
    diameter2_mm: float
    length_mm: float

    @property
    def volume(self) -> float:
        d1, d2 = self.diameter1_mm, self.diameter2_mm
        return math.pi / 12 * self.length_mm * (d1 * d1 + d1 * d2 + d2 * d2)

    @property
    def area(self) -> float:
        r1, r2 = self.diameter1_mm / 2, self.diameter2_mm / 2
        return math.pi * ((r1 + r2) * math.hypot(r1 - r2, self.length_mm) + r1 * r1 + r2 * r2)

    @property
    def axis_mm(self) -> float:
        return self.length_mm

    def half_widths(self, t: float) -> HALVES:
        half = (self.diameter1_mm * (1 - t) + self.diameter2_mm * t) / 2
        return half, half

    def side_outline(self) -> Polygon:
        from shapely.geometry import Polygon

        a, b, n = self.diameter1_mm / 2, self.diameter2_mm / 2, self.length_mm
        return Polygon([(0, -a), (n, -b), (n, b), (0, a)])


@dataclass(frozen=True)
class Cylinder(Solid):
    """Of one thickness from end to end, with flat ends."""

    KIND = "cylinder"
    SIZES = ("diameter_mm", "length_mm")
    STRAIGHT = True

    diameter_mm: float
    length_mm: float

    @property
    def volume(self) -> float:
        return Frustum(self.diameter_mm, self.diameter_mm, self.length_mm).volume

    @property
    def area(self) -> float:
        return Frustum(self.diameter_mm, self.diameter_mm, self.length_mm).area

    @property
    def axis_mm(self) -> float:
        return self.length_mm

    def half_widths(self, t: float) -> HALVES:
        return self.diameter_mm / 2, self.diameter_mm / 2

    def side_outline(self) -> Polygon:
        return _band(self.length_mm, self.diameter_mm / 2)


@dataclass(frozen=True)
class Cone(Solid):
    """From its base to a point."""

    KIND = "cone"
    SIZES = ("diameter_mm", "length_mm")
    STRAIGHT = True

    diameter_mm: float
    length_mm: float

    @property
    def volume(self) -> float:
        return Frustum(self.diameter_mm, 0, self.length_mm).volume

    @property
    def area(self) -> float:
        return Frustum(self.diameter_mm, 0, self.length_mm).area

    @property
    def axis_mm(self) -> float:
        return self.length_mm

    def half_widths(self, t: float) -> HALVES:
        half = self.diameter_mm / 2 * (1 - t)
        return half, half

    def side_outline(self) -> Polygon:
        from shapely.geometry import Polygon

        return Polygon([(0, -self.diameter_mm / 2), (self.length_mm, 0), (0, self.diameter_mm / 2)])


@dataclass(frozen=True)
class Capsule(Solid):
    """A cylinder with round ends; the length is over all."""

    KIND = "capsule"
    SIZES = ("diameter_mm", "length_mm")

    diameter_mm: float
    length_mm: float

    @property
    def volume(self) -> float:
        d = self.diameter_mm
        return math.pi / 4 * d * d * (self.length_mm - d) + math.pi / 6 * d**3

    @property
    def area(self) -> float:
        return math.pi * self.diameter_mm * self.length_mm

    @property
    def axis_mm(self) -> float:
        return self.length_mm

    def half_widths(self, t: float) -> HALVES:
        r = self.diameter_mm / 2
        gap = max(0.0, r - min(t, 1 - t) * self.length_mm)
        half = math.sqrt(max(0.0, r * r - gap * gap))
        return half, half

    def side_outline(self) -> Polygon:
        from shapely.geometry import LineString

        r = self.diameter_mm / 2
        if self.length_mm <= self.diameter_mm:
            return _disc(r, r)
        return LineString([(r, 0), (self.length_mm - r, 0)]).buffer(r, quad_segs=ROUND_STEPS)


@dataclass(frozen=True)
class Box(Solid):
    """A block with flat faces."""

    KIND = "box"
    SIZES = ("length_mm", "width_mm", "height_mm")
    STRAIGHT = True

    length_mm: float
    width_mm: float
    height_mm: float

    @property
    def volume(self) -> float:
        return self.length_mm * self.width_mm * self.height_mm

    @property
    def area(self) -> float:
        a, b, c = self.length_mm, self.width_mm, self.height_mm
        return 2 * (a * b + a * c + b * c)

    @property
    def axis_mm(self) -> float:
        return self.length_mm

    def half_widths(self, t: float) -> HALVES:
        return self.height_mm / 2, self.width_mm / 2

    def side_outline(self) -> Polygon:
        return _band(self.length_mm, self.height_mm / 2)


@dataclass(frozen=True)
class Torus(Solid):
    """A ring; its axis goes through the hole."""

    KIND = "torus"
    SIZES = ("outer_diameter_mm", "tube_diameter_mm")

    outer_diameter_mm: float
    tube_diameter_mm: float

    @property
    def volume(self) -> float:
        ring = self.outer_diameter_mm - self.tube_diameter_mm
        return math.pi**2 / 4 * ring * self.tube_diameter_mm**2

    @property
    def area(self) -> float:
        return math.pi**2 * (self.outer_diameter_mm - self.tube_diameter_mm) * self.tube_diameter_mm

    @property
    def axis_mm(self) -> float:
        return self.tube_diameter_mm

    @property
    def hole_mm(self) -> float:
        """Diameter of what goes through it."""
        return self.outer_diameter_mm - 2 * self.tube_diameter_mm

    @property
    def ring_mm(self) -> float:
        """Radius of the middle line of the tube."""
        return (self.outer_diameter_mm - self.tube_diameter_mm) / 2

    def half_widths(self, t: float) -> HALVES:
        half = self.ring_mm + self.tube_diameter_mm / 2 * _round(t)
        return half, half

    def with_sizes(self, given: Mapping[str, float]) -> Torus:
        """As of all solids; a new `hole_mm` keeps the tube."""
        if "hole_mm" in given:
            return Torus(given["hole_mm"] + 2 * self.tube_diameter_mm, self.tube_diameter_mm)
        return super().with_sizes(given)

    def side_outline(self) -> Polygon:
        r = self.outer_diameter_mm / 2
        return _disc(r, r).difference(_disc(r, r - self.tube_diameter_mm))

    @property
    def convex(self) -> bool:
        return False


@dataclass(frozen=True)
class Slab(Solid):
    """An outline cut from a sheet: both faces and the edge. Its half widths are its breadth and half its thickness."""

    KIND = "slab"
    SIZES = ("length_mm", "width_mm", "thickness_mm")
    BY_SIZES = False

    outline: Points
    thickness_mm: float

    @property
    def face(self) -> float:
        """Area of one face (shoelace formula)."""
        ends = zip(self.outline, self.outline[1:] + self.outline[:1], strict=True)
        return abs(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in ends)) / 2

    @property
    def volume(self) -> float:
        return self.face * self.thickness_mm

    @property
    def area(self) -> float:
        ends = zip(self.outline, self.outline[1:] + self.outline[:1], strict=True)
        return 2 * self.face + self.thickness_mm * sum(math.dist(p, q) for p, q in ends)

    @property
    def axis_mm(self) -> float:
        low, high = min(x for x, _ in self.outline), max(x for x, _ in self.outline)
        return high - min(0.0, low)

    def span_at(self, x: float) -> tuple[float, float]:
        """The least and the greatest y of the outline at x."""
        found = []
        for (x1, y1), (x2, y2) in zip(self.outline, self.outline[1:] + self.outline[:1], strict=True):
            if min(x1, x2) <= x <= max(x1, x2):
                found += [y1, y2] if x1 == x2 else [y1 + (y2 - y1) * (x - x1) / (x2 - x1)]
        return (min(found), max(found)) if found else (0.0, 0.0)

    def half_widths(self, t: float) -> HALVES:
        low, high = self.span_at(t * self.axis_mm)
        return max(abs(low), abs(high)), self.thickness_mm / 2

    def side_outline(self) -> Polygon:
        from shapely.geometry import Polygon

        return Polygon(self.outline)

    @property
    def convex(self) -> bool:
        face = self.side_outline()
        return bool(face.convex_hull.area - face.area < 1e-6 * face.area)

    @property
    def sizes(self) -> dict[str, float]:
        xs, ys = zip(*self.outline, strict=True)
        return {"length_mm": max(xs) - min(xs), "width_mm": max(ys) - min(ys), "thickness_mm": self.thickness_mm}

    def with_sizes(self, given: Mapping[str, float]) -> Slab:
        now = self.sizes
        along, across = (
            given.get(name, now[name]) / now[name] if now[name] else 1 for name in ("length_mm", "width_mm")
        )
        stretched = tuple((x * along, y * across) for x, y in self.outline)
        return Slab(stretched, given.get("thickness_mm", self.thickness_mm))

    def scaled(self, s: float) -> Slab:
        return Slab(tuple((x * s, y * s) for x, y in self.outline), self.thickness_mm * s)

    @property
    def longest_mm(self) -> float:
        return max(self.thickness_mm, *(abs(mm) for point in self.outline for mm in point))


@dataclass(frozen=True)
class Silhouette(Solid):
    """Elliptical sections along an axis: (x, width) at stations, linear between; sideways width = width × ratio."""

    KIND = "silhouette"
    SIZES = ("length_mm", "width_mm")
    BY_SIZES = False

    stations: Points
    depth_ratio: float = 1.0

    @property
    def volume(self) -> float:
        spans = zip(self.stations, self.stations[1:], strict=False)
        return math.pi / 12 * self.depth_ratio * sum((x2 - x1) * (a * a + a * b + b * b) for (x1, a), (x2, b) in spans)

    @property
    def area(self) -> float:
        spans = zip(self.stations, self.stations[1:], strict=False)
        sleeve = sum(_elliptic_sleeve(x2 - x1, a / 2, b / 2, self.depth_ratio) for (x1, a), (x2, b) in spans)
        ends = math.pi / 4 * self.depth_ratio * (self.stations[0][1] ** 2 + self.stations[-1][1] ** 2)
        return sleeve + ends

    @property
    def axis_mm(self) -> float:
        return self.stations[-1][0] - self.stations[0][0]

    def half_widths(self, t: float) -> HALVES:
        xs = [x for x, _ in self.stations]
        x = xs[0] + t * self.axis_mm
        at = min(max(bisect_right(xs, x) - 1, 0), len(xs) - 2)
        (x1, a), (x2, b) = self.stations[at : at + 2]
        width = a + (b - a) * (x - x1) / (x2 - x1)
        return width / 2, width / 2 * self.depth_ratio

    def side_outline(self) -> Polygon:
        from shapely.geometry import Polygon

        upper = [(x, w / 2) for x, w in self.stations]
        return Polygon([*upper, *((x, -w / 2) for x, w in reversed(self.stations))]).buffer(0)

    @property
    def convex(self) -> bool:
        spans = list(zip(self.stations, self.stations[1:], strict=False))
        slopes = [(b - a) / (x2 - x1) for (x1, a), (x2, b) in spans]
        return all(later - earlier < 1e-9 for earlier, later in itertools.pairwise(slopes))

    @property
    def cuts(self) -> list[float]:
        first, last = self.stations[0][0], self.stations[-1][0]
        return [(x - first) / (last - first) for x, _ in self.stations]

    @property
    def sizes(self) -> dict[str, float]:
        return {"length_mm": self.axis_mm, "width_mm": max(width for _, width in self.stations)}

    def with_sizes(self, given: Mapping[str, float]) -> Silhouette:
        now = self.sizes
        along, across = (given.get(name, now[name]) / now[name] for name in self.SIZES)
        return Silhouette(tuple((x * along, width * across) for x, width in self.stations), self.depth_ratio)

    def scaled(self, s: float) -> Silhouette:
        return Silhouette(tuple((x * s, w * s) for x, w in self.stations), self.depth_ratio)

    @property
    def longest_mm(self) -> float:
        return max(max(abs(x), width * max(1.0, self.depth_ratio)) for x, width in self.stations)


def _elliptic_sleeve(length: float, a1: float, a2: float, ratio: float) -> float:
    """Lateral area of an elliptical frustum: half widths a1 to a2 one way, × ratio the other.

    The area element a·√(k²(a'² + cos²θ) + sin²θ) splits into mean half width × length × a complete elliptic integral,
    ∫₀²ᵖ √(A cos²θ + B sin²θ) dθ = 8 R_G(0, A, B) (DLMF §19.25.1 and homogeneity).
    """
    lean = (ratio * (a2 - a1) / length) ** 2
    return (a1 + a2) / 2 * length * 8 * carlson_rg(0.0, ratio**2 + lean, 1.0 + lean)


@dataclass(frozen=True)
class Wrap(Solid):
    """A sleeve on wire: the wire's volume is off, the area is the outside without ends, the wire never grows thicker."""

    KIND = "wrap"
    SIZES = ("length_mm", "diameter_mm", "wire_mm")
    STRAIGHT = True
    OPEN = True

    length_mm: float
    diameter_mm: float
    wire_mm: float

    @property
    def volume(self) -> float:
        return math.pi / 4 * (self.diameter_mm**2 - self.wire_mm**2) * self.length_mm

    @property
    def area(self) -> float:
        return math.pi * self.diameter_mm * self.length_mm

    @property
    def axis_mm(self) -> float:
        return self.length_mm

    def half_widths(self, t: float) -> HALVES:
        return self.diameter_mm / 2, self.diameter_mm / 2

    def side_outline(self) -> Polygon:
        return _band(self.length_mm, self.diameter_mm / 2)

    @property
    def convex(self) -> bool:
        return False  # the wire in it can be bent

    def scaled(self, s: float) -> Wrap:
        return Wrap(self.length_mm * s, self.diameter_mm * s, self.wire_mm)


@dataclass(frozen=True)
class Nothing(Solid):
    """Lines, patches, plumes: no volume and no area of their own. How long they are, their seat says."""

    KIND = "none"
    BY_SIZES = False

    @property
    def volume(self) -> float:
        return 0.0

    @property
    def area(self) -> float:
        return 0.0

    @property
    def axis_mm(self) -> float:
        return 0.0

    def half_widths(self, t: float) -> HALVES:
        return 0.0, 0.0

    def side_outline(self) -> Polygon:
        from shapely.geometry import Polygon

        return Polygon()


SOLIDS: tuple[type[Solid], ...] = (
    Sphere, Ellipsoid, Dome, Cylinder, Frustum, Cone, Capsule, Box, Torus, Slab, Silhouette, Nothing, Wrap,
)  # fmt: skip
KINDS: dict[str, type[Solid]] = {cls.KIND: cls for cls in SOLIDS}


def solid(shape: Mapping) -> Solid:
    """The solid of a validated shape object."""
    given = {
        key: tuple(map(tuple, each)) if isinstance(each, list) else each for key, each in shape.items() if key != "kind"
    }
    return KINDS[shape["kind"]](**given)


def shape_of(one: Solid) -> dict:
    """The shape object of a solid, as the contract and the files have it."""
    given = {f.name: getattr(one, f.name) for f in fields(one)}
    plain = {name: [list(row) for row in each] if isinstance(each, tuple) else each for name, each in given.items()}
    return {"kind": one.KIND, **plain}
