"""What a maker's wisp, pinch and handful weigh: shown to the scale a few times, with how far they scatter."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from wembit.core.grams.estimate import Range

FEWEST = 3  # weighings before a handful counts as a weight
NEWEST = 20  # that count: a hand changes


@dataclass(frozen=True)
class Handful:
    """The mean of what was shown, in g, the standard deviation of one, and how many were."""

    mean_g: float
    sd_g: float
    n: int

    @property
    def known(self) -> bool:
        """Whether it was shown often enough to be used as a weight."""
        return self.n >= FEWEST

    def times(self, count: float) -> Range:
        """What so many weigh together: eight times in ten in between, each by itself a little more or less."""
        middle, spread = count * self.mean_g, math.sqrt(count) * self.sd_g
        sigma = math.sqrt(math.log1p((spread / middle) ** 2)) if middle > 0 else 0.0
        return Range.of(middle, sigma)


def shown(grams: Sequence[float]) -> Handful:
    """From the weights shown (> 0, the oldest first): the newest count."""
    some = list(grams)[-NEWEST:]
    if not some:
        return Handful(0.0, 0.0, 0)
    mean = sum(some) / len(some)
    spread = sum((each - mean) ** 2 for each in some)
    return Handful(mean, math.sqrt(spread / (len(some) - 1)) if len(some) > 1 else 0.0, len(some))
