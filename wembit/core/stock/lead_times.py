"""How long a supplier takes: as it is told, and as deliveries have shown."""

from __future__ import annotations

import math
from collections.abc import Sequence
from statistics import fmean

FEWEST = 3  # deliveries from which they say something
TOLD_COUNTS = 2  # deliveries that what is told is worth, common practice


def lead_of(told_days: float, taken_days: Sequence[float]) -> tuple[float, float]:
    """Mean and standard deviation in days of a delivery; as told, and without any scatter, while there are too few.

    The mean is that of the deliveries and of `TOLD_COUNTS` as told; the scatter is about it.
    """
    if len(taken_days) < FEWEST:
        return told_days, 0.0
    mean = fmean([*taken_days, *[told_days] * TOLD_COUNTS])
    return mean, math.sqrt(sum((each - mean) ** 2 for each in taken_days) / (len(taken_days) - 1))
