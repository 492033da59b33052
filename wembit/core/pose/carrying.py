"""Whether wired legs carry what stands on them, and what would make a figure stand that does not.

A leg is a column, held in the body and free at the ground: Euler's critical load π² E I ÷ (2 L)² (S. P. Timoshenko & J. M.
Gere, Theory of Elastic Stability, 2nd ed. 1961, section 2.1), I = π d⁴ ÷ 64 of round wire. Felt round it is not counted.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from shapely.geometry import Point, Polygon

from wembit.core.craft.armature import BARE_MM, Wire

from .balance import Standing

G = 9.80665  # m/s²
# Young's moduli in GPa, of the wrought metals; handbook values, from memory
MODULI = {"aluminium": 69.0, "copper": 117.0, "brass": 103.0, "iron": 200.0, "steel": 200.0}
UNKNOWN = "aluminium"  # what most wire of the craft is, and the weakest; common practice
SAFETY = 8.0  # a figure is knocked, and a bent wire is weaker than a straight one; assumed
SOLD_MM = (0.3, 0.4, 0.5, 0.6, 0.8, 1.0, 1.2, 1.5, 2.0, 2.5, 3.0, 4.0)  # gauges that are sold; common practice
HOLE_SHARE, WIRES_LONG, LEAST_BARE_MM = (
    0.7,
    8.0,
    5.0,
)  # of what is bored; gauges that a bare end is long; common practice
LEGS, FEET = ("leg", "foot"), ("foot", "toe")
INSIDE_MM = 2.0  # so far inside its feet a figure stands for sure


def strength(metal: str) -> float:
    """Young's modulus in N/mm²."""
    return MODULI.get(metal, MODULI[UNKNOWN]) * 1000


def carries_g(gauge_mm: float, length_mm: float, metal: str = "") -> float:
    """What a leg of that wire carries, in g, with the safety that stands here."""
    inertia = math.pi * gauge_mm**4 / 64
    return math.pi**2 * strength(metal) * inertia / (2 * length_mm) ** 2 / SAFETY / G * 1000


def needed_gauge_mm(load_g: float, length_mm: float, metal: str = "") -> float:
    """How thick the wire of a leg has to be for a load in g."""
    inertia = load_g / 1000 * G * SAFETY * (2 * length_mm) ** 2 / (math.pi**2 * strength(metal))
    return (64 * inertia / math.pi) ** 0.25


def sold_gauge_mm(gauge_mm: float) -> float:
    """The next gauge that is sold; the thickest where none is thick enough."""
    return next((sold for sold in SOLD_MM if sold >= gauge_mm - 1e-9), SOLD_MM[-1])


def bare_end_mm(gauge_mm: float, host_mm: float) -> float:
    """How long a bare end should be for the hole it goes into: long enough to hold, not through what is bored."""
    return max(LEAST_BARE_MM, min(max(BARE_MM, WIRES_LONG * gauge_mm), HOLE_SHARE * host_mm))


@dataclass(frozen=True)
class Leg:
    """A wired part that stands, by its name: how many, its wire, what each carries in g."""

    name: str
    wire: Wire
    load_g: float

    @property
    def carries(self) -> bool:
        return carries_g(self.wire.gauge_mm, self.wire.length_mm, self.wire.make.metal) >= self.load_g

    @property
    def gauge_mm(self) -> float:
        """The gauge that would carry it."""
        return sold_gauge_mm(needed_gauge_mm(self.load_g, self.wire.length_mm, self.wire.make.metal))

    @property
    def times(self) -> float:
        """At how many times its size the wire gives way: the load grows with the cube, the length with the size."""
        now = carries_g(self.wire.gauge_mm, self.wire.length_mm, self.wire.make.metal)
        return (now / self.load_g) ** 0.2 if self.load_g else math.inf


def legs(wires: Mapping[str, tuple[str, Wire]], all_g: float) -> list[Leg]:
    """The wired legs of a figure of so many grams; `wires` by key: the kind of the part and its wire. They share the load."""
    found = {key: wire for key, (kind, wire) in wires.items() if kind in LEGS and not wire.former}
    count = sum(wire.count for wire in found.values())
    return [Leg(wire.part, wire, all_g / count) for wire in found.values()]


@dataclass(frozen=True)
class Offer:
    """One way to make it stand: `what` (feet, weight or lean) and how much: mm, g, or degrees."""

    what: str
    amount: float


def offers(standing: Standing, all_g: float, height_mm: float) -> list[Offer]:
    """What would make a figure stand that tips: feet that reach so many mm further, so many g in its base, or so many degrees
    that it leans the other way; what is out of reach is not offered.
    """
    if standing.stands:
        return []
    short = INSIDE_MM - standing.margin_mm
    span, spot = Polygon(standing.span), Point(standing.centre)
    found = [Offer("feet", short)]
    base = span.centroid
    away = spot.distance(base)
    if away > short > 0 and not span.is_empty:
        share = _share_inside(span, spot, base)
        found.append(Offer("weight", all_g * share / (1 - share)))
    if height_mm > short:
        found.append(Offer("lean", math.degrees(math.atan2(short, height_mm))))
    return found


def _share_inside(span: Polygon, spot: Point, base: Point) -> float:
    """How far towards the middle of its feet the centre of weight has to move, as a share, to lie safely inside."""
    safe = span.buffer(-INSIDE_MM) if not span.buffer(-INSIDE_MM).is_empty else span
    low, high = 0.0, 1.0
    for _ in range(40):
        share = (low + high) / 2
        there = Point(spot.x + (base.x - spot.x) * share, spot.y + (base.y - spot.y) * share)
        low, high = (low, share) if safe.contains(there) else (share, high)
    return min(high, 0.99)


@dataclass(frozen=True)
class FootWire:
    """One wire for all toes of a foot, doubled toe by toe: how many are cut, how long each, of what, for which parts."""

    host: str
    pieces: int
    cut_mm: float
    gauge_mm: float
    spans_mm: tuple[float, ...]
    parts: tuple[str, ...]


def feet(hosts: Mapping[str, int], bound: Sequence[tuple[str, str, Wire]]) -> list[FootWire]:
    """The feet of wired legs: for each leg (by key, with how many there are) the doubled toes bound to it, as (host, part,
    wire), when they are of one gauge and share out evenly.
    """
    found = []
    for host, count in hosts.items():
        mine = [(part, wire) for on, part, wire in bound if on == host and wire.doubled]
        gauges = {wire.gauge_mm for _, wire in mine}
        if len(gauges) != 1 or not all(wire.count % count == 0 for _, wire in mine):
            continue
        spans = tuple(wire.length_mm for _, wire in mine for _ in range(wire.count // count))
        if len(spans) > 1:
            parts = tuple(part for part, _ in mine)
            found.append(FootWire(host, count, sum(2 * span for span in spans), gauges.pop(), spans, parts))
    return found
