"""Proportions that felters think in: a larger head, longer legs, a stouter body; of any figure, stored or of a plan.

What sits on a part goes along with it; feet that stood on the ground stand on it again.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from wembit.core.contract.requests import SHAPE
from wembit.core.grams.scaling import scaled_armature, scaled_rule, scaled_seat, scaled_shape
from wembit.core.pose.mesh import surface
from wembit.core.pose.placing import Placed, PlacedPart, Seat, place
from wembit.core.shape.sizes import resized, sizes
from wembit.core.shape.solids import Nothing, solid

from .plan import BodyPlan, stored

Part = dict[str, Any]
STEP, MOST = 1.12, 4  # times the size at one step, and so many steps either way
GAUGES_MM = (0.3, 0.4, 0.5, 0.6, 0.8, 1.0, 1.2, 1.5, 2.0, 2.5, 3.0)  # wires as they are sold; common practice
MOST_OF_A_SLEEVE = 0.5  # of a wound part's thickness that its wire may take; common practice
AT_THE_TIP = 0.8  # of an axis: from here on something sits at its tip
TOUCHES_MM, LEVEL_MM, TRIES = 1.5, 0.2, 4  # how near the ground is on it
LEGS = ("leg", "arm", "foreleg")
STANDING_KINDS = (*LEGS, "foot", "toe")


@dataclass(frozen=True)
class Proportion:
    """A size that goes from `less` to `more`: of parts of these kinds, changed by `change`."""

    key: str
    name: str
    less: str
    more: str
    kinds: tuple[str, ...]
    change: Callable[[list[Part], Part, float], None]


@dataclass(frozen=True)
class Extent:
    """How long, broad and high a figure is, and how far its lowest point lies over the ground, all in mm."""

    long: float
    broad: float
    high: float
    lowest: float


def _grow(parts: list[Part], part: Part, times: float) -> None:
    """The part and all that sits on it."""
    for each in _carried(parts, part["key"]):
        _scale(each, times)


def _lengthen(parts: list[Part], part: Part, times: float) -> None:
    """The part along its axis; what sits at its tip stays as far from it as it was."""
    for other in parts:
        seat = other["seat"]
        if seat.get("on") == part["key"] and AT_THE_TIP <= seat.get("t", 0.5) < 1:
            other["seat"] = {**seat, "t": max(0.0, 1 - (1 - seat["t"]) / times)}
    now = sizes(part["shape"])
    along = next((name for name in ("length_mm", "height_mm") if name in now), None)
    if along is None:
        _scale(part, times)
        return
    least = now["diameter_mm"] if part["shape"]["kind"] == "capsule" else 0.0
    part["shape"] = resized(part["shape"], {along: max(now[along] * times, least)})
    if "bends" in part["seat"]:
        part["seat"] = {**part["seat"], "bends": [[length * times, pitch] for length, pitch in part["seat"]["bends"]]}


def _widen(parts: list[Part], part: Part, times: float) -> None:
    """The part across its axis; what is round all over grows, with all that sits on it."""
    now = sizes(part["shape"])
    if "length_mm" not in now and "height_mm" not in now:
        _grow(parts, part, times)
        return
    along = "length_mm" if "length_mm" in now else "height_mm"
    most = now[along] if part["shape"]["kind"] == "capsule" else math.inf
    across = {name: min(mm * times, most) for name, mm in now.items() if name not in (along, "wire_mm", "thickness_mm")}
    part["shape"] = resized(part["shape"], across)


PROPORTIONS = (
    Proportion("head", "Head", "small", "big", ("head",), _grow),
    Proportion("body", "Body", "slim", "stout", ("body", "shell", "tower"), _widen),
    Proportion("neck", "Neck", "short", "long", ("neck",), _lengthen),
    Proportion("legs", "Legs", "short", "long", ("leg",), _lengthen),
    Proportion("arms", "Arms", "short", "long", ("arm",), _lengthen),
    Proportion("ears", "Ears", "small", "big", ("ear",), _grow),
    Proportion("snout", "Snout", "short", "long", ("snout",), _lengthen),
    Proportion("wings", "Wings", "small", "big", ("wing",), _grow),
    Proportion("tail", "Tail", "short", "long", ("tail",), _lengthen),
)


def natural(plan: BodyPlan) -> list[Part]:
    """The parts of a plan as it was thought of, on its feet."""
    parts = stored(plan.parts)
    return grounded(parts, {part["key"]: 0.0 for part in parts if part["name"] in plan.feet})


def proportions_of(parts: Sequence[Part]) -> list[Proportion]:
    """The proportions that these parts have."""
    kinds = {part["kind"] for part in parts}
    return [each for each in PROPORTIONS if kinds & set(each.kinds)]


def proportioned(
    parts: Sequence[Part], steps: Mapping[str, int], feet: Mapping[str, float] | None = None
) -> list[Part]:
    """Copies of stored parts with each proportion so many steps from what it was, down or up; what stood on the ground
    (`feet`, where they are known already, as `touching` finds them) stands on it again. Raises `BadInput` where they cannot be
    placed.
    """
    return proportioned_and_extent(parts, steps, feet)[0]


def proportioned_and_extent(
    parts: Sequence[Part], steps: Mapping[str, int], feet: Mapping[str, float] | None = None
) -> tuple[list[Part], Extent]:
    """`proportioned`, and how large those parts stand there."""
    changed = [dict(part) for part in parts]
    feet = touching(changed) if feet is None else feet
    for each in PROPORTIONS:
        if times := STEP ** max(-MOST, min(MOST, steps.get(each.key, 0))):
            tops = [part for part in changed if part["kind"] in each.kinds and not _within(changed, part, each.kinds)]
            for part in tops if each.change is _grow else [p for p in changed if p["kind"] in each.kinds]:
                each.change(changed, part, times)
    return _on_its_feet(changed, feet)


def at_size(parts: Sequence[Part], times: float) -> list[Part]:
    """Copies of stored parts with every length so many times as long; what is wound on wire gets a wire of a gauge for it."""
    changed = [dict(part) for part in parts]
    for part in changed:
        if part["shape"]["kind"] == "wrap":
            part["shape"] = {**part["shape"], "wire_mm": gauge_for(part["shape"], times)}
        _scale(part, times)
    return changed


def gauge_for(wrap: Mapping[str, Any], times: float) -> float:
    """The gauge of the wire in a wound part so many times as large, in mm: one that is sold, near to as many times the wire
    that it has, and well hidden in the wool. About as large, it keeps its own.
    """
    if 1 / STEP <= times <= STEP:
        return float(wrap["wire_mm"])
    wanted, most = wrap["wire_mm"] * times, MOST_OF_A_SLEEVE * wrap["diameter_mm"] * times
    fitting = [gauge for gauge in GAUGES_MM if gauge <= most] or [most]
    return min(fitting, key=lambda gauge: abs(math.log(gauge / wanted)))


def extent(parts: Sequence[Part]) -> Extent:
    """How large stored parts stand there. Raises `BadInput`."""
    return _extent_of(_reach(parts))


def _extent_of(reach: Mapping[str, np.ndarray]) -> Extent:
    both = np.array(list(reach.values()))
    low, high = both[:, 0].min(axis=0), both[:, 1].max(axis=0)
    long, broad, tall = (float(size) for size in high - low)
    return Extent(long, broad, tall, float(low[2]))


def touching(parts: Sequence[Part]) -> dict[str, float]:
    """The feet: legs, arms and feet that reach the ground and carry none that does, each with how far it is over it, in mm."""
    lowest = {key: float(low[2]) for key, (low, _) in _reach(parts).items()}
    ground = min(lowest.values())
    near = {
        part["key"]: lowest[part["key"]] - ground
        for part in parts
        if part["kind"] in STANDING_KINDS and lowest[part["key"]] - ground < TOUCHES_MM
    }
    carrying = {key for key in near if any(each["key"] in near for each in _carried(parts, key) if each["key"] != key)}
    return {key: gap for key, gap in near.items() if key not in carrying}


def grounded(parts: list[Part], feet: Mapping[str, float]) -> list[Part]:
    """The parts with these feet so far over the ground, and the lowest of them on it: a leg that ends above is made longer, a
    foot without a leg comes further out of what it sits on.
    """
    return _on_its_feet(parts, feet)[0]


def _on_its_feet(parts: list[Part], feet: Mapping[str, float]) -> tuple[list[Part], Extent]:
    for _ in range(TRIES):
        reach = _reach(parts)
        lowest = {key: float(low[2]) for key, (low, _) in reach.items()}
        ground = min(lowest.values())
        short = {key: lowest[key] - ground - gap for key, gap in feet.items() if lowest[key] - ground - gap > LEVEL_MM}
        for key, gap in short.items():
            leg = _leg_of(parts, key)
            if leg is not None:
                length = solid(SHAPE(leg["shape"], "shape")).axis_mm
                _lengthen(parts, leg, 1 + gap / max(length, gap))
            else:
                foot = next(part for part in parts if part["key"] == key)
                foot["seat"] = {**foot["seat"], "sink": max(0.0, foot["seat"].get("sink", 0.0) - gap)}
        if not short:
            break
    else:
        reach = _reach(parts)
    found = _extent_of(reach)
    for part in parts:
        if part["seat"].get("on") is None:
            part["seat"] = {**part["seat"], "centre_mm": part["seat"].get("centre_mm", 0.0) - found.lowest}
    return parts, replace(found, lowest=0.0)


def _leg_of(parts: Sequence[Part], key: str) -> Part | None:
    """The part, or the nearest one that carries it, that can be longer."""
    by_key = {part["key"]: part for part in parts}
    part: Part | None = by_key[key]
    while part is not None and part["kind"] not in LEGS:
        part = by_key.get(part["seat"].get("on"))
    return part


def _scale(part: Part, times: float) -> None:
    part["shape"], part["seat"] = scaled_shape(part["shape"], times), scaled_seat(part["seat"], times)
    part["armature"] = scaled_armature(part["armature"], times)
    if part.get("loose_end_mm"):
        part["loose_end_mm"] *= times
    part["layers"] = [{**layer, "rule": scaled_rule(layer["role"], layer["rule"], times)} for layer in part["layers"]]


def _carried(parts: Sequence[Part], key: str) -> list[Part]:
    keys = {key}
    while more := {part["key"] for part in parts if part["seat"].get("on") in keys} - keys:
        keys |= more
    return [part for part in parts if part["key"] in keys]


def _within(parts: Sequence[Part], part: Part, kinds: tuple[str, ...]) -> bool:
    """Whether a part sits, at whatever depth, on another one of these kinds."""
    return any(part in _carried(parts, other["key"]) for other in parts if other is not part and other["kind"] in kinds)


def _placed(parts: Sequence[Part]) -> list[Placed]:
    return place(
        [
            PlacedPart(part["key"], part["count"], solid(SHAPE(part["shape"], "shape")), Seat.of(part["seat"]))
            for part in parts
        ]
    )


def _points(piece: Placed) -> np.ndarray:
    """Points (n, 3) of a piece's skin; of what has none its joints."""
    if isinstance(piece.part.shape, Nothing):
        return np.array(piece.joints)
    return surface(piece).reshape(-1, 3)


def _reach(parts: Sequence[Part]) -> dict[str, np.ndarray]:
    """By the key of each part its lowest and its highest x, y, z, as (2, 3)."""
    found: dict[str, np.ndarray] = {}
    for piece in _placed(parts):
        points = _points(piece)
        box = np.array([points.min(axis=0), points.max(axis=0)])
        if (other := found.get(piece.name)) is not None:
            box = np.array([np.minimum(box[0], other[0]), np.maximum(box[1], other[1])])
        found[piece.name] = box
    return found
