"""Where a finger on a drawing touches the skin of a piece: the nearest place of it that faces the viewer."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from .gaze import Gaze
from .placing import Placed

ALONG, ROUND = 81, 96  # places that are looked at


def touched(piece: Placed, gaze: Gaze, points: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """For each point of the picture, right and up in mm, the share of the axis and the degrees round from the top; those of
    neighbouring points lie together, also across the underside.
    """
    ts = np.linspace(0, 1, ALONG)
    angles = np.linspace(-180, 180, ROUND, endpoint=False)
    skin = np.array([[piece.skin_at(float(t), float(angle) * piece.mirror)[0] for angle in angles] for t in ts])
    middles = np.array([piece.axis_at(float(t))[0] for t in ts])
    facing = (skin - middles[:, None]) @ gaze.near >= 0
    facing[[0, -1]] = facing[[1, -2]]
    flat = gaze.flat(skin)
    found: list[tuple[float, float]] = []
    for point in points:
        away = np.where(facing, np.linalg.norm(flat - np.array(point), axis=-1), np.inf)
        row, column = np.unravel_index(int(np.argmin(away)), away.shape)
        angle = float(angles[column])
        if found:
            angle += 360 * round((found[-1][1] - angle) / 360)
        found.append((float(ts[row]), angle))
    return found
