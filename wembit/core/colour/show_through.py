"""Cover: the least wool that hides what is under it.

Sources: bare fraction of a random fibre network, Kallmes & Corte, "The structure of paper I", Tappi 43 (1960) 737–752;
seen colour, area-weighted reflectance; difference, CIEDE2000 (difference.py). Tristimulus values are linear in
reflectance, so those of the seen colour are the same weighted mean, whatever the curves behind the two swatches are.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from wembit.core.craft.materials import WOOL_DENSITY

from .conversions import Lab, lab, ratios, xyz_to_lab
from .difference import delta_e_2000

LIMIT_DE00 = 2.0
LEAST_G_M2 = 60.0
MOST_G_M2 = 400.0
TAU = 0.5
STEPS = 64  # of the search for the first crossing; a difference need not fall evenly with the weight
PRECISION = 1e-10  # of the weight, relative
THICK_G_M2, DARKER_L = 150.0, 25.0  # see `grins_through`; assumed


@dataclass(frozen=True)
class Cover:
    """`g_m2`: weight per area; `bare`: the fraction left bare; `de00`: what still shows; `capped`: the limit was not
    reached at the most.
    """

    g_m2: float
    bare: float
    de00: float
    capped: bool = False


def bare_fraction(g_m2: float, micron_um: float, tau: float = TAU) -> float:
    """The fraction that a random mat of `g_m2` leaves bare: exp(−τ·A·g) with A = 4/(π·d·ρ) in m²/g."""
    area_m2_g = 4 / (math.pi * micron_um * WOOL_DENSITY)
    return math.exp(-tau * area_m2_g * g_m2)


def hiding_power(srgb: str) -> float:
    """τ of one fibre by its lightness: 0.25 for pale wool (L* 80 and more), which is translucent, 1 for dark (L* 30 and
    less), a line between. Assumed; the core's own default is 0.5 for all.
    """
    lightness = lab(srgb)[0]
    return min(1.0, max(0.25, 1 - 0.75 * (lightness - 30) / 50))


def grins_through(g_m2: float, cover: Lab, ground: Lab) -> bool:
    """Whether a heavy cover over a much darker ground shows it where it happens to lie thin. Colours in CIELAB."""
    return g_m2 > THICK_G_M2 and cover[0] - ground[0] > DARKER_L


@lru_cache(maxsize=4096)
def cover(
    srgb: str,
    over: str,
    micron_um: float,
    tau: float = TAU,
    *,
    limit_de00: float = LIMIT_DE00,
    least_g_m2: float = LEAST_G_M2,
    most_g_m2: float = MOST_G_M2,
) -> Cover:
    """The smallest weight per area from `least_g_m2` at which wool of `srgb`, laid over `over`, is seen within
    `limit_de00` of itself. Colours are `#rrggbb`, the fibre's diameter is in µm.
    """
    own, under = ratios(srgb), ratios(over)
    wanted = xyz_to_lab(own)

    def at(g_m2: float) -> Cover:
        bare = bare_fraction(g_m2, micron_um, tau)
        seen = [(1 - bare) * mine + bare * below for mine, below in zip(own, under, strict=True)]
        return Cover(g_m2, bare, delta_e_2000(xyz_to_lab(seen), wanted))

    thin = at(least_g_m2)
    if thin.de00 <= limit_de00:
        return thin
    for step in range(1, STEPS + 1):
        thick = at(least_g_m2 + (most_g_m2 - least_g_m2) * step / STEPS)
        if thick.de00 <= limit_de00:
            break
        thin = thick
    else:
        return Cover(thin.g_m2, thin.bare, thin.de00, capped=True)
    while thick.g_m2 - thin.g_m2 > PRECISION * thick.g_m2:
        middle = at((thin.g_m2 + thick.g_m2) / 2)
        thin, thick = (thin, middle) if middle.de00 <= limit_de00 else (middle, thick)
    return thick
