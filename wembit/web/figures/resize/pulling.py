"""A figure pulled to another height by its tip."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from wembit.core.drawing.views import grounded
from wembit.core.pose.gaze import SIDE
from wembit.core.pose.mesh import surface
from wembit.core.units import MM
from wembit.web.figures.drawing.layout import Picture
from wembit.web.figures.models import Part
from wembit.web.figures.to_core.seating import placed
from wembit.web.numbers import plain
from wembit.web.studio.models import Studio

LEAST_TIMES, MOST_TIMES = 0.25, 3.0  # of its height now: what one pull reaches
STEP_MM = {"mm": 1.0, "cm": 1.0, "in": 2.54}


@dataclass(frozen=True)
class Pull:
    """The heights that a slider reaches, in the unit of the house; `mm`: how long that unit is. `high_mm`: as it is drawn."""

    least: str
    most: str
    step: str
    value: str
    mm: float
    high_mm: float

    @classmethod
    def of(cls, before: Picture, after: Picture, studio: Studio) -> Pull:
        """From a quarter of its height to three times that, or as far as it was asked for."""
        unit, step = MM[studio.length_unit], STEP_MM[studio.length_unit]
        least, most = min(before.tall * LEAST_TIMES, after.tall), max(before.tall * MOST_TIMES, after.tall)
        low, high, by, now = (plain(value / unit, 3) for value in (least // step * step, most, step, after.tall))
        return cls(low, high, by, now, unit, after.tall)


def tip_of(parts: Sequence[Part]) -> tuple[float, float]:
    """Where the skin of the figure is highest, in the picture from the side: mm, y down."""
    flat = np.concatenate([SIDE.flat(surface(piece).reshape(-1, 3)) for piece in grounded(placed(parts))])
    across, up = flat[np.argmax(flat[:, 1])]
    return round(float(across), 1), round(-float(up), 1)
