"""A thin layer of another wool under a cover: it hides the ground, so that less of the cover does.

Both weigh what hides what is under them (show_through.py).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from .show_through import cover, hiding_power


@dataclass(frozen=True)
class Cover:
    """One cover of a figure: its middle grams, its weight per area, and the colour of the ground under it."""

    grams: float
    g_m2: float
    ground: str


@dataclass(frozen=True)
class ThinLayer:
    """What a layer under all covers of a wool does in one figure, in g."""

    whole: float
    saved: float
    taken: float

    @property
    def remains(self) -> float:
        """The share of the covering wool that is still needed."""
        return 1 - self.saved / self.whole if self.whole else 1.0

    @property
    def ratio(self) -> float:
        """Grams of the layer for each of the cover that it saves."""
        return self.taken / self.saved if self.saved else 0.0


def more_over(seen: str, micron_um: float, covering: Cover, ground: str) -> float:
    """How many grams more a cover takes over another ground than over the one that it lies on; below 0 where it saves."""
    return covering.grams * (cover(seen, ground, micron_um, hiding_power(seen)).g_m2 / covering.g_m2 - 1)


def laid_under(covers: Sequence[Cover], old: tuple[str, float], new: tuple[str, float]) -> ThinLayer:
    """What a layer of the new wool under covers of the old saves and takes; both as sRGB and fibre diameter in µm."""
    (seen, micron), (under, other_micron) = old, new
    saved = taken = 0.0
    if covers:
        thinner = cover(seen, under, micron, hiding_power(seen)).g_m2
        for covering in covers:
            saved += covering.grams * max(0.0, 1 - thinner / covering.g_m2)
            taken += (
                covering.grams / covering.g_m2 * cover(under, covering.ground, other_micron, hiding_power(under)).g_m2
            )
    return ThinLayer(sum(covering.grams for covering in covers), saved, taken)
