"""Where a colour lies on the colour map, and which colour lies at a place of it.

By hue the map is the a*b* plane: grey in the middle, chroma outwards, lightness not shown. By lightness it is a sheet with
the hue angle across and L* upwards, greys in a strip of their own. Places are in units of the map, y downwards.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from wembit.core.colour.conversions import GREY_BELOW, chroma_hue

RADIUS = 300.0  # of the map by hue, and half the height of the one by lightness
GREYS_X = -310.0  # where greys stand on the map by lightness
HUES_FROM, HUES_WIDE = -270.0, 560.0  # where the hues begin on it, and how wide all of them are
BETWEEN = (GREYS_X + HUES_FROM) / 2  # left of it greys are asked for
ASKED_LIGHT, ASKED_CHROMA = 55.0, 30.0  # of a colour asked for where the map does not show its lightness, or its chroma


def place_by_hue(lab: Sequence[float], rim: float) -> tuple[float, float]:
    """The place of a colour (L*, a*, b*) on the map at whose rim lies the chroma `rim`."""
    return lab[1] * RADIUS / rim, -lab[2] * RADIUS / rim


def place_by_lightness(lab: Sequence[float]) -> tuple[float, float]:
    """The place of a colour (L*, a*, b*) on the sheet of hue and lightness."""
    light, a, b = lab
    chroma, hue = chroma_hue(a, b)
    x = GREYS_X if chroma < GREY_BELOW else HUES_FROM + hue / 360 * HUES_WIDE
    return x, RADIUS - light / 100 * 2 * RADIUS


def colour_by_hue(x: float, y: float, rim: float) -> tuple[float, float, float]:
    """The colour (L*, a*, b*) at a place of the map by hue, of middle lightness."""
    return ASKED_LIGHT, x * rim / RADIUS, -y * rim / RADIUS


def colour_by_lightness(x: float, y: float) -> tuple[float, float, float]:
    """The colour (L*, a*, b*) at a place of the sheet, of middle chroma, or grey at its left."""
    light = min(100.0, max(0.0, (RADIUS - y) / (2 * RADIUS) * 100))
    if x < BETWEEN:
        return light, 0.0, 0.0
    hue = (x - HUES_FROM) / HUES_WIDE * 2 * math.pi
    return light, ASKED_CHROMA * math.cos(hue), ASKED_CHROMA * math.sin(hue)
