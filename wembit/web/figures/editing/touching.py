"""Where a finger touched the drawing of a figure: which part, and where on its skin."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from wembit.core.drawing.views import grounded
from wembit.core.errors import BadInput
from wembit.core.pose.gaze import Gaze
from wembit.core.pose.placing import Placed
from wembit.core.pose.touching import touched
from wembit.core.shape.solids import Nothing
from wembit.web.figures.models import Part
from wembit.web.figures.to_core.seating import placed

FINGER_MM = 3.0  # a touch so near to a part is on it
PAIR = 2


@dataclass(frozen=True)
class Touch:
    """A point of one of the views, right and up in mm."""

    gaze: Gaze
    right: float
    up: float


def place_of(count: int, parts: Sequence[Part], touch: Touch) -> dict[str, Any]:
    """What the touch says of a seat: the part that lies nearest to the eye there, t and angle; those of a pair as of the one
    on its own side. Nothing where no part was touched, or where the parts cannot be placed.
    """
    found: list[tuple[float, Placed, float, float]] = []
    try:
        pieces = grounded(placed(parts))
    except BadInput:
        return {}
    for piece in pieces:
        if isinstance(piece.part.shape, Nothing) or piece.seat.bead.mm:
            continue
        ((t, angle),) = touched(piece, touch.gaze, [(touch.right, touch.up)])
        point = piece.skin_at(t, angle * piece.mirror)[0]
        away = float(np.linalg.norm(touch.gaze.flat(point) - [touch.right, touch.up]))
        if away <= FINGER_MM:
            found.append((float(point @ touch.gaze.near), piece, t, angle))
    if not found:
        return {}
    _, piece, t, angle = max(found, key=lambda each: each[0])
    return {"on": piece.name, "t": round(t, 3), "angle": round(abs(angle) if count == PAIR else angle, 1)}
