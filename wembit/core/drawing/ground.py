"""What lies on the ground with a figure: its shadow under a light from above, and a coin beside it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from wembit.core.pose.gaze import Gaze
from wembit.core.pose.mesh import Ring, hulls, rings_of, surface, together
from wembit.core.pose.placing import Placed

from .scale_objects import COIN_MM

SOFT_MM, BESIDE_MM, EDGE_POINTS = 2.0, 8.0, 40
LINE_OF_SIGHT = 1e-6  # seen so flat, what lies on the ground is nothing but a line


@dataclass(frozen=True)
class Ground:
    """Rings on the ground as (x, y) in mm: the shadow, and the coin's rim. `reach`: how far the figure reaches from the
    middle of the ground at most, `radius` how far the coin does; `height` of the figure.
    """

    shadow: list[Ring]
    coin: Ring
    reach: float
    radius: float
    height: float


def ground_of(pieces: Sequence[Placed]) -> Ground:
    """The ground under placed pieces that stand on it; empty where nothing is felted."""
    skins = [skin for piece in pieces if (skin := surface(piece)).shape[1] > 1]
    if not skins:
        return Ground([], [], 0.0, 0.0, 0.0)
    prints = [skin.reshape(-1, 3)[:, :2] for skin in skins]
    shadow = together([hulls(each[None])[0] for each in prints]).buffer(SOFT_MM, quad_segs=4).simplify(0.3)
    points = np.concatenate(prints)
    reach = float(np.hypot(*points.T).max())
    away = reach + BESIDE_MM + COIN_MM / 2
    middle = np.array([away, -away]) / math.sqrt(2)  # in front of it, on its own side
    turns = np.linspace(0, 2 * math.pi, EDGE_POINTS, endpoint=False)
    rim = middle + np.stack([np.cos(turns), np.sin(turns)], axis=-1) * COIN_MM / 2
    height = max(float(skin[..., 2].max()) for skin in skins)
    return Ground(rings_of(shadow), list(map(tuple, rim.tolist())), reach, away + COIN_MM / 2, height)


def seen_from(rings: Sequence[Ring], gaze: Gaze) -> list[Ring]:
    """Rings of the ground as they are seen; none from below, through it."""
    if gaze.near[2] < -LINE_OF_SIGHT:
        return []
    flat = np.stack([gaze.right[:2], gaze.up[:2]], axis=-1)
    return [list(map(tuple, (np.array(ring) @ flat).tolist())) for ring in rings if ring]
