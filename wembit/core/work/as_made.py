"""The shape and firmness with which a part came out, from what was measured against what was planned."""

from __future__ import annotations

import math
from collections.abc import Mapping

from wembit.core.craft.materials import A_PINCH_BELOW_G
from wembit.core.shape.sizes import resized, sizes

from .checking import NEAR, firmness_of

ALONG = ("length_mm", "outer_diameter_mm")  # the sizes that a piece's length is measured by
STAYS = ("wire_mm",)
SAME = 0.01  # of a size: what a ruler tells apart at 50 mm


def came_out(shape: Mapping, long: float, thick: float) -> dict:
    """A planned shape `long` times as long and `thick` times as thick; a ball becomes a ball of that volume, a dome keeps its
    foot flat.
    """
    planned = sizes(shape)
    if set(planned) == {"diameter_mm"}:
        return resized(shape, {"diameter_mm": planned["diameter_mm"] * math.cbrt(long * thick**2)})
    along = ("diameter_mm",) if shape["kind"] == "dome" else ALONG
    times = {name: 1.0 if name in STAYS else long if name in along else thick for name in planned}
    return resized(shape, {name: mm * times[name] for name, mm in planned.items()})


def felted(density: float, bias: float) -> str:
    """The firmness to plan with, for a hand that takes `bias` times the rule's wool, so that it comes out at that density in
    g/cm³.
    """
    return firmness_of(density / bias)


def differs(ratio: float) -> bool:
    """Whether a size came out otherwise than planned."""
    return abs(ratio - 1) > SAME


def is_same(shape: Mapping, other: Mapping) -> bool:
    """Whether two shapes of one kind have the same sizes, as a ruler tells them."""
    mine, others = sizes(shape), sizes(other)
    return mine.keys() == others.keys() and not any(differs(mm / others[name]) for name, mm in mine.items())


def weighs_otherwise(grams: float, planned: float) -> bool:
    """Whether a piece took another weight than planned, in g; of less than a pinch no scale tells."""
    return planned >= A_PINCH_BELOW_G and abs(grams / planned - 1) > NEAR
