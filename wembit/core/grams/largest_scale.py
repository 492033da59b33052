"""How big a figure comes out: by a finished length, and backwards from the wool there is."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from wembit.core.errors import BadInput

from .estimate import estimate

SMALLEST, LARGEST = 0.05, 20.0
PRECISION = 1e-6  # of the scale
FITS_EASILY = -50.0  # logarithm that stands for a size so small that the figure cannot be built at all


@dataclass(frozen=True)
class Largest:
    """`scale`: the largest; `fibre`: the one that limits it, None where even the largest scale leaves wool over."""

    scale: float
    fibre: str | None


class TooLittle(ValueError):
    """Even the smallest size takes more than there is: `fibre`, the grams it takes and the grams there are."""

    def __init__(self, fibre: str, takes_g: float, there_g: float) -> None:
        super().__init__(f"{fibre}: takes {takes_g:.2f} g, there are {there_g:.2f} g")
        self.fibre, self.takes_g, self.there_g = fibre, takes_g, there_g


def scale_for(now_mm: float, now_scale: float, wanted_mm: float) -> float:
    """The scale at which a length that is `now_mm` at `now_scale` becomes `wanted_mm`."""
    return now_scale * wanted_mm / now_mm


def largest(request: Mapping, there_g: Mapping[str, float], *, odds: str = "p50") -> Largest:
    """The largest scale at which no fibre of `there_g` (grams by fibre; fibres not named are unlimited) is exceeded.

    `request`: an estimate's, whose own scale is set aside. `odds`: p50, or p90 to be sure in nine of ten. Raises
    `TooLittle`, and `BadInput` for a figure that cannot be estimated at any scale.
    """
    from scipy.optimize import brentq

    def most_used(scale: float) -> tuple[float, str | None, float]:
        totals = estimate({**request, "scale": scale}).totals
        used = [
            (getattr(totals[fibre], odds) / max(there, 1e-9), fibre)
            for fibre, there in there_g.items()
            if fibre in totals
        ]
        share, fibre = max(used, default=(0.0, None))
        return share, fibre, getattr(totals[fibre], odds) if fibre else 0.0

    def over(log_scale: float) -> float:
        try:
            share = most_used(math.exp(log_scale))[0]
        except BadInput:
            return FITS_EASILY
        return math.log(share) if share > 0 else FITS_EASILY

    low, high = math.log(SMALLEST), math.log(LARGEST)
    if over(high) <= 0:
        most_used(LARGEST)
        return Largest(LARGEST, None)
    if over(low) > 0:
        _, fibre, takes = most_used(SMALLEST)
        raise TooLittle(str(fibre), takes, there_g[str(fibre)])
    found = math.exp(brentq(over, low, high, xtol=PRECISION))
    smallest = found * (1 + 10 * PRECISION)
    share, fibre, takes = most_used(smallest)
    if share > 1.001:
        raise TooLittle(str(fibre), takes, there_g[str(fibre)])
    return Largest(found, fibre)
