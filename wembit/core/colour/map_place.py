"""Where a colour lies on the colour map, and which colour lies at a place of it.

By hue the map is the a*b* plane without its middle: chroma outwards, from that on at which a hue is seen; what has less
stands on a ladder by its lightness. By lightness it is a sheet with the hue angle across and L* upwards, greys in a strip of
their own. Places are in units of the map, y downwards.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from wembit.core.colour.conversions import GREY_BELOW, chroma_hue

MUTED, HOLE = 12.0, 40.0  # chroma below which a colour stands on the ladder, and the radius at which it begins
RADIUS = 300.0  # of the map by hue, and half the height of the one by lightness
GREYS_X = -310.0  # where greys stand on the map by lightness
HUES_FROM, HUES_WIDE = -270.0, 560.0  # where the hues begin on it, and how wide all of them are
BETWEEN = (GREYS_X + HUES_FROM) / 2  # left of it greys are asked for
ASKED_LIGHT, ASKED_CHROMA = 55.0, 30.0  # of a colour asked for where the map does not show its lightness, or its chroma


def place_by_hue(lab: Sequence[float], rim: float) -> tuple[float, float]:
    """The place of a colour (L*, a*, b*) on the map at whose rim lies the chroma `rim`; inside the hole for a muted one."""
    chroma = math.hypot(lab[1], lab[2])
    far = HOLE * chroma / MUTED if chroma < MUTED else HOLE + (chroma - MUTED) / (rim - MUTED) * (RADIUS - HOLE)
    return (lab[1] * far / chroma, -lab[2] * far / chroma) if chroma else (0.0, 0.0)


def is_muted(lab: Sequence[float]) -> bool:
    """Whether a colour (L*, a*, b*) stands on the ladder."""
    return math.hypot(lab[1], lab[2]) < MUTED


def place_on_ladder(lab: Sequence[float]) -> tuple[float, float]:
    """The place of a muted colour (L*, a*, b*): white at the top."""
    return 0.0, RADIUS - lab[0] / 100 * 2 * RADIUS


def colour_on_ladder(y: float) -> tuple[float, float, float]:
    """The grey at a place of the ladder."""
    return min(100.0, max(0.0, (RADIUS - y) / (2 * RADIUS) * 100)), 0.0, 0.0


def place_by_lightness(lab: Sequence[float]) -> tuple[float, float]:
    """The place of a colour (L*, a*, b*) on the sheet of hue and lightness."""
    light, a, b = lab
    chroma, hue = chroma_hue(a, b)
    x = GREYS_X if chroma < GREY_BELOW else HUES_FROM + hue / 360 * HUES_WIDE
    return x, RADIUS - light / 100 * 2 * RADIUS


def colour_by_hue(x: float, y: float, rim: float) -> tuple[float, float, float]:
    """The colour (L*, a*, b*) at a place of the map by hue, of middle lightness."""
    far = math.hypot(x, y)
    chroma = MUTED * far / HOLE if far < HOLE else MUTED + (far - HOLE) / (RADIUS - HOLE) * (rim - MUTED)
    return (ASKED_LIGHT, x * chroma / far, -y * chroma / far) if far else (ASKED_LIGHT, 0.0, 0.0)


def colour_by_lightness(x: float, y: float) -> tuple[float, float, float]:
    """The colour (L*, a*, b*) at a place of the sheet, of middle chroma, or grey at its left."""
    light = min(100.0, max(0.0, (RADIUS - y) / (2 * RADIUS) * 100))
    if x < BETWEEN:
        return light, 0.0, 0.0
    hue = (x - HUES_FROM) / HUES_WIDE * 2 * math.pi
    return light, ASKED_CHROMA * math.cos(hue), ASKED_CHROMA * math.sin(hue)
