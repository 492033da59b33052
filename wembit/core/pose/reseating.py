"""Where a part sits on another host without being moved: the spot of that host's skin that lies nearest."""

from __future__ import annotations

import numpy as np

from .placing import Placed

ALONG, ROUND, FINER = 21, 36, 4  # a first grid of shares and degrees, and how often it is made finer round the best


def spot_of(piece: Placed) -> np.ndarray:
    """The point of its host's skin at which a piece sits; the root of its axis where it sits on the host's axis."""
    if piece.host is None or piece.seat.angle is None:
        return np.asarray(piece.joints[0], dtype=float)
    return piece.host.skin_at(piece.seat.t, piece.seat.angle * piece.mirror)[0]


def nearest_on(host: Placed, point: np.ndarray) -> tuple[float, float]:
    """The share of the host's axis and the degrees round from its top whose skin lies nearest to a point."""
    low, high, begin, end = 0.0, 1.0, -180.0, 180.0
    t, angle = 0.5, 0.0
    for _ in range(FINER):
        ts, angles = np.linspace(low, high, ALONG), np.linspace(begin, end, ROUND)
        skin = np.array([[host.skin_at(float(s), float(a) * host.mirror)[0] for a in angles] for s in ts])
        n, m = np.unravel_index(np.linalg.norm(skin - point, axis=2).argmin(), (ALONG, ROUND))
        t, angle = float(ts[n]), float(angles[m])
        wide, turn = (high - low) / ALONG, (end - begin) / ROUND
        low, high, begin, end = max(0.0, t - wide), min(1.0, t + wide), angle - turn, angle + turn
    return t, (angle + 180) % 360 - 180
