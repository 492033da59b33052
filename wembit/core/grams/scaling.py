"""A figure made larger or smaller, once and for all: every stored length becomes what it is then.

What is solid grows with the cube, covers with the square; wire grows longer, not thicker, the ends of it and the locks of a
coat stay as they are handled, unless the coat is told to grow.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from wembit.core.craft.notions import FITTINGS, MILLIMETRES
from wembit.core.pose.placing import LENGTHS
from wembit.core.shape.solids import shape_of, solid

AREA = "area_mm2"
RULE_POWERS = {
    "thickness_mm": 1, "across_mm": 1, "line_mm": 1, "width_mm": 1, "border_mm": 1, "area_mm2": 2, "grams": 3,
}  # fmt: skip
PILE = ("grams_per_cm", "pulled_mm", "finished_mm")  # of a coat that grows with its figure
WIRE_LENGTHS = ("through_mm", "back_mm")


def scaled_shape(shape: Mapping, s: float) -> dict[str, Any]:
    """The shape with every length × s; wire stays as thick as it is."""
    return shape_of(solid(shape).scaled(s))


def scaled_seat(seat: Mapping, s: float) -> dict[str, Any]:
    """A stored seat with every length × s; shares of an axis and angles stay."""
    scaled = {key: value * s if key in LENGTHS and value is not None else value for key, value in seat.items()}
    if "bends" in seat:
        scaled["bends"] = [[length * s, pitch] for length, pitch in seat["bends"]]
    if "copies" in seat:
        scaled["copies"] = [scaled_seat(copy, s) for copy in seat["copies"]]
    return scaled


def scaled_armature(told: Mapping, s: float) -> dict[str, Any]:
    """What is told of a wire: what runs through and back grows; gauge, bare ends and loops stay."""
    return {key: value * s if key in WIRE_LENGTHS and value is not None else value for key, value in told.items()}


def scaled_rule(role: str, rule: Mapping, s: float) -> dict[str, Any]:
    """The rule of a layer, so that it takes what the estimate says at that scale."""
    scaled = {key: value * s ** RULE_POWERS[key] if key in RULE_POWERS else value for key, value in rule.items()}
    if role == "coat" and rule.get("scale_pile"):
        scaled |= {key: rule[key] * s for key in PILE if key in rule}
    return scaled


def on_another_skin(rule: Mapping, before_mm2: float, after_mm2: float) -> dict[str, Any]:
    """The rule of a layer on a part whose skin was `before_mm2` and is `after_mm2`: a patch told by its area grows with it."""
    if AREA not in rule or not before_mm2:
        return dict(rule)
    return {**rule, AREA: round(rule[AREA] * after_mm2 / before_mm2, 4)}


def scaled_fitting(kept: Mapping, s: float) -> dict[str, Any]:
    """A fitting: a loop and a thread grow longer, what is counted stays."""
    long = FITTINGS[kept["notion"]].unit == MILLIMETRES if kept["notion"] in FITTINGS else False
    return {**kept, "amount": kept["amount"] * s} if long else dict(kept)
