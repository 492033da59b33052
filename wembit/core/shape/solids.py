"""Solids of a figure's parts: volume in mm³ and area in mm² of the whole closed surface, from sizes in mm.

Closed forms are the mensuration formulas of any handbook; the ellipsoid's area is Carlson's symmetric integral
(DLMF 19.33.1, dlmf.nist.gov).
"""

from __future__ import annotations

import math
from dataclasses import dataclass, fields, replace

from .elliptic import carlson_rg

Points = tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class Solid:
    """Base of all solids: every field in mm scales with the figure, `depth_ratio` and the like do not."""

    def scaled(self, s: float):
        return replace(self, **{f.name: getattr(self, f.name) * s for f in fields(self) if f.name.endswith("_mm")})

    @property
    def longest_mm(self) -> float:
        """The largest of its sizes in mm."""
        return max((getattr(self, f.name) for f in fields(self) if f.name.endswith("_mm")), default=0.0)

    @property
    def volume(self) -> float:
        raise NotImplementedError

    @property
    def area(self) -> float:
        raise NotImplementedError


@dataclass(frozen=True)
class Sphere(Solid):
    diameter_mm: float

    @property
    def volume(self):
        return math.pi / 6 * self.diameter_mm**3

    @property
    def area(self):
        return math.pi * self.diameter_mm**2


@dataclass(frozen=True)
class Ellipsoid(Solid):
    length_mm: float
    width_mm: float
    height_mm: float

    @property
    def volume(self):
        return math.pi / 6 * self.length_mm * self.width_mm * self.height_mm

    @property
    def area(self):
        size = max(self.length_mm, self.width_mm, self.height_mm) / 2
        a, b, c = (each / 2 / size for each in (self.length_mm, self.width_mm, self.height_mm))
        return 4 * math.pi * size**2 * carlson_rg(a * a * b * b, a * a * c * c, b * b * c * c)


@dataclass(frozen=True)
class Dome(Solid):
    """A spherical cap on its flat base; the height may exceed the radius."""

    diameter_mm: float
    height_mm: float

    @property
    def volume(self):
        return math.pi * self.height_mm / 6 * (3 * (self.diameter_mm / 2) ** 2 + self.height_mm**2)

    @property
    def area(self):
        return math.pi * (2 * (self.diameter_mm / 2) ** 2 + self.height_mm**2)


@dataclass(frozen=True)
class Frustum(Solid):
    diameter1_mm: float
    diameter2_mm: float
    length_mm: float

    @property
    def volume(self):
        d1, d2 = self.diameter1_mm, self.diameter2_mm
        return math.pi / 12 * self.length_mm * (d1 * d1 + d1 * d2 + d2 * d2)

    @property
    def area(self):
        r1, r2 = self.diameter1_mm / 2, self.diameter2_mm / 2
        return math.pi * ((r1 + r2) * math.hypot(r1 - r2, self.length_mm) + r1 * r1 + r2 * r2)


@dataclass(frozen=True)
class Cylinder(Solid):
    diameter_mm: float
    length_mm: float

    @property
    def volume(self):
        return Frustum(self.diameter_mm, self.diameter_mm, self.length_mm).volume

    @property
    def area(self):
        return Frustum(self.diameter_mm, self.diameter_mm, self.length_mm).area


@dataclass(frozen=True)
class Cone(Solid):
    diameter_mm: float
    length_mm: float

    @property
    def volume(self):
        return Frustum(self.diameter_mm, 0, self.length_mm).volume

    @property
    def area(self):
        return Frustum(self.diameter_mm, 0, self.length_mm).area


@dataclass(frozen=True)
class Capsule(Solid):
    """A cylinder with round ends; the length is over all."""

    diameter_mm: float
    length_mm: float

    @property
    def volume(self):
        d = self.diameter_mm
        return math.pi / 4 * d * d * (self.length_mm - d) + math.pi / 6 * d**3

    @property
    def area(self):
        return math.pi * self.diameter_mm * self.length_mm


@dataclass(frozen=True)
class Box(Solid):
    length_mm: float
    width_mm: float
    height_mm: float

    @property
    def volume(self):
        return self.length_mm * self.width_mm * self.height_mm

    @property
    def area(self):
        a, b, c = self.length_mm, self.width_mm, self.height_mm
        return 2 * (a * b + a * c + b * c)


@dataclass(frozen=True)
class Torus(Solid):
    outer_diameter_mm: float
    tube_diameter_mm: float

    @property
    def volume(self):
        ring = self.outer_diameter_mm - self.tube_diameter_mm
        return math.pi**2 / 4 * ring * self.tube_diameter_mm**2

    @property
    def area(self):
        return math.pi**2 * (self.outer_diameter_mm - self.tube_diameter_mm) * self.tube_diameter_mm


@dataclass(frozen=True)
class Slab(Solid):
    """An outline cut from a sheet: both faces and the edge."""

    outline: Points
    thickness_mm: float

    def scaled(self, s):
        return Slab(tuple((x * s, y * s) for x, y in self.outline), self.thickness_mm * s)

    @property
    def longest_mm(self):
        return max(self.thickness_mm, *(abs(mm) for point in self.outline for mm in point))

    @property
    def face(self) -> float:
        """Area of one face in mm² (shoelace formula)."""
        ends = zip(self.outline, self.outline[1:] + self.outline[:1], strict=True)
        return abs(sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in ends)) / 2

    @property
    def volume(self):
        return self.face * self.thickness_mm

    @property
    def area(self):
        ends = zip(self.outline, self.outline[1:] + self.outline[:1], strict=True)
        return 2 * self.face + self.thickness_mm * sum(math.dist(p, q) for p, q in ends)


@dataclass(frozen=True)
class Silhouette(Solid):
    """Elliptical sections along an axis: (x, width) at stations, linear between; sideways width = width × ratio."""

    stations: Points
    depth_ratio: float = 1.0

    def scaled(self, s):
        return Silhouette(tuple((x * s, w * s) for x, w in self.stations), self.depth_ratio)

    @property
    def longest_mm(self):
        return max(max(abs(x), width * max(1.0, self.depth_ratio)) for x, width in self.stations)

    @property
    def volume(self):
        spans = zip(self.stations, self.stations[1:], strict=False)
        return math.pi / 12 * self.depth_ratio * sum((x2 - x1) * (a * a + a * b + b * b) for (x1, a), (x2, b) in spans)

    @property
    def area(self):
        spans = zip(self.stations, self.stations[1:], strict=False)
        sleeve = sum(_elliptic_sleeve(x2 - x1, a / 2, b / 2, self.depth_ratio) for (x1, a), (x2, b) in spans)
        ends = math.pi / 4 * self.depth_ratio * (self.stations[0][1] ** 2 + self.stations[-1][1] ** 2)
        return sleeve + ends


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

    length_mm: float
    diameter_mm: float
    wire_mm: float

    def scaled(self, s):
        return Wrap(self.length_mm * s, self.diameter_mm * s, self.wire_mm)

    @property
    def volume(self):
        return math.pi / 4 * (self.diameter_mm**2 - self.wire_mm**2) * self.length_mm

    @property
    def area(self):
        return math.pi * self.diameter_mm * self.length_mm


@dataclass(frozen=True)
class Nothing(Solid):
    """Lines, patches, plumes: no volume and no area of their own."""

    @property
    def volume(self):
        return 0.0

    @property
    def area(self):
        return 0.0


KINDS: dict[str, type[Solid]] = {
    "sphere": Sphere,
    "ellipsoid": Ellipsoid,
    "dome": Dome,
    "cylinder": Cylinder,
    "frustum": Frustum,
    "cone": Cone,
    "capsule": Capsule,
    "box": Box,
    "torus": Torus,
    "slab": Slab,
    "silhouette": Silhouette,
    "none": Nothing,
    "wrap": Wrap,
}


def solid(shape: dict) -> Solid:
    """The solid of a validated shape object."""
    given = {key: tuple(map(tuple, each)) if isinstance(each, list) else each for key, each in shape.items()}
    return KINDS[given.pop("kind")](**given)
