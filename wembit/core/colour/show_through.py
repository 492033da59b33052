"""Cover: the least wool that hides what is under it.

Sources: bare fraction of a random fibre network, Kallmes & Corte, "The structure of paper I", Tappi 43 (1960) 737–752;
seen colour, area-weighted reflectance; difference, CIEDE2000 (difference.py). Tristimulus values are linear in
reflectance, so those of the seen colour are the same weighted mean, whatever the curves behind the two swatches are.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from wembit.core.craft.materials import WOOL_DENSITY

from .conversions import Lab, lab, ratios, xyz_rows_to_lab, xyz_to_lab
from .difference import delta_e_2000, differences

LIMIT_DE00 = 2.0
LEAST_G_M2 = 60.0
MOST_G_M2 = 400.0
TAU = 0.5
SAMPLES, DIPS = (
    128,
    3,
)  # of the search for the first crossing, and how often what lies between two of them is looked into
SMALLEST = 1e-300  # bare fraction
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
    return math.exp(-tau * _shade(micron_um) * g_m2)


def _shade(micron_um: float) -> float:
    """What a gram of fibres so thick, laid side by side, shades, in m²."""
    return 4 / (math.pi * micron_um * WOOL_DENSITY)


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
    mixed = _Mixed(srgb, over)
    least, most = (bare_fraction(each, micron_um, tau) for each in (least_g_m2, most_g_m2))
    thin = Cover(least_g_m2, least, mixed.difference(least))
    if thin.de00 <= limit_de00:
        return thin
    between = mixed.first_within(least, most, limit_de00)
    if between is None:
        return Cover(most_g_m2, most, mixed.difference(most), capped=True)

    def weight(bare: float) -> float:
        return -math.log(bare) / (tau * _shade(micron_um))

    thinner, thick = (weight(max(bare, SMALLEST)) for bare in between)
    thick = min(thick, most_g_m2)
    while thick - thinner > PRECISION * thick:
        middle = (thinner + thick) / 2
        hides = mixed.difference(bare_fraction(middle, micron_um, tau)) <= limit_de00
        thinner, thick = (thinner, middle) if hides else (middle, thick)
    bare = bare_fraction(thick, micron_um, tau)
    return Cover(thick, bare, mixed.difference(bare))


class _Mixed:
    """The colour that is seen of one wool over another, by the fraction left bare, and how far it is from the wool."""

    def __init__(self, srgb: str, over: str) -> None:
        self.own, self.under = ratios(srgb), ratios(over)
        self.wanted = xyz_to_lab(self.own)

    def difference(self, bare: float) -> float:
        """ΔE00 at that bare fraction."""
        seen = [(1 - bare) * mine + bare * below for mine, below in zip(self.own, self.under, strict=True)]
        return delta_e_2000(xyz_to_lab(seen), self.wanted)

    def differences(self, bare: np.ndarray) -> np.ndarray:
        """ΔE00 (n,) at bare fractions (n,)."""
        seen = (1 - bare)[:, None] * np.array(self.own) + bare[:, None] * np.array(self.under)
        return differences(xyz_rows_to_lab(seen), np.array(self.wanted))

    def first_within(self, most: float, least: float, limit: float) -> tuple[float, float] | None:
        """Two bare fractions, from `most` down to `least`, between which the difference first comes within the limit; None
        where it never does. It need not fall evenly: where it dips between two samples, that dip is looked into.
        """
        bare = np.concatenate([np.linspace(most, least, SAMPLES), np.geomspace(most, max(least, SMALLEST), SAMPLES)])
        return self._first(np.unique(np.clip(bare, least, most))[::-1], limit, DIPS)

    def _first(self, bare: np.ndarray, limit: float, dips: int) -> tuple[float, float] | None:
        off = self.differences(bare)
        within = np.flatnonzero(off <= limit)
        end = int(within[0]) if len(within) else len(bare)
        if dips:
            beside = np.pad(off, 1, mode="edge")
            low = np.minimum(beside[:-2], beside[2:]) >= off
            fall = np.maximum(beside[:-2], beside[2:]) - off
            for place in np.flatnonzero(low & (off - 2 * fall <= limit)).tolist():
                if place >= end:
                    break
                finer = np.linspace(bare[max(0, place - 1)], bare[min(len(bare) - 1, place + 1)], SAMPLES)
                if found := self._first(finer, limit, dips - 1):
                    return found
        if end == len(bare):
            return None
        return float(bare[end - 1]), float(bare[end])
