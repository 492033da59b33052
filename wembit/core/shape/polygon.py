"""Checks of a drawn outline."""

from __future__ import annotations

from functools import lru_cache


@lru_cache(maxsize=1024)
def crosses_itself(points: tuple[tuple[float, float], ...]) -> bool:
    """Whether a closed outline of (x, y) points crosses or touches itself other than at neighbouring corners."""
    import numpy as np

    start = np.array(points, dtype=float)
    end = np.roll(start, -1, axis=0)
    count = len(points)

    def side(p: np.ndarray, q: np.ndarray, r: np.ndarray) -> np.ndarray:
        """Sign of the turn p → q → r for every pair of edges: (n, n)."""
        cross = (q[..., 0] - p[..., 0]) * (r[..., 1] - p[..., 1]) - (q[..., 1] - p[..., 1]) * (r[..., 0] - p[..., 0])
        scale = np.abs(start).max() ** 2 + 1e-300
        return np.sign(np.where(np.abs(cross) < 1e-12 * scale, 0.0, cross))

    a, b = start[:, None, :], end[:, None, :]
    c, d = start[None, :, :], end[None, :, :]
    straddles = (side(a, b, c) * side(a, b, d) <= 0) & (side(c, d, a) * side(c, d, b) <= 0)
    overlap = np.ones_like(straddles)
    for axis in (0, 1):
        low_1, high_1 = np.minimum(a, b)[..., axis], np.maximum(a, b)[..., axis]
        low_2, high_2 = np.minimum(c, d)[..., axis], np.maximum(c, d)[..., axis]
        overlap &= (low_1 <= high_2) & (low_2 <= high_1)
    met = straddles & overlap
    gap = np.abs(np.subtract.outer(np.arange(count), np.arange(count)))
    neighbours = (gap <= 1) | (gap == count - 1)
    return bool((met & ~neighbours).any())
