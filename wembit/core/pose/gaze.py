"""From where a figure is looked at: orthographic, so far round it and so far above the level of the ground."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np


@dataclass(frozen=True)
class Gaze:
    """`turn` degrees round from its side (90: from the front, 180: from its other side, 270: from the back), `tilt` degrees up
    from level (90: from above, −90: from below). `right` and `up` of the picture and `near`, towards the eye, are unit
    vectors of the figure's space.
    """

    turn: float = 0.0
    tilt: float = 0.0

    @cached_property
    def right(self) -> np.ndarray:
        a = math.radians(self.turn)
        return _exact(math.cos(a), math.sin(a), 0.0)

    @cached_property
    def up(self) -> np.ndarray:
        a, b = math.radians(self.turn), math.radians(self.tilt)
        return _exact(-math.sin(a) * math.sin(b), math.cos(a) * math.sin(b), math.cos(b))

    @cached_property
    def near(self) -> np.ndarray:
        a, b = math.radians(self.turn), math.radians(self.tilt)
        return _exact(math.sin(a) * math.cos(b), -math.cos(a) * math.cos(b), math.sin(b))

    def flat(self, points: np.ndarray) -> np.ndarray:
        """Points of space (…, 3) as points of the picture (…, 2), in mm."""
        return np.stack([points @ self.right, points @ self.up], axis=-1)


def _exact(*of: float) -> np.ndarray:
    """The vector with what is nothing but rounding as 0, so that a view from the side is the same as ever."""
    return np.array([0.0 if abs(each) < 1e-12 else each for each in of])


SIDE, FRONT = Gaze(0, 0), Gaze(90, 0)
VIEWS = {"side": SIDE, "front": FRONT, "back": Gaze(270, 0), "other side": Gaze(180, 0), "above": Gaze(0, 90),
         "below": Gaze(0, -90)}  # fmt: skip
