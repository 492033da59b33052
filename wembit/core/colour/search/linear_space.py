"""The lots of a shelf as points around a mix, so that the difference of a recipe is a length.

The additive function of a blend (mixture.py) is a weighted mean of those of its fibres. Around any mix, CIELAB runs straight
in it and the square of CIEDE2000 is a quadratic form: each lot is a point in a space of three, and the difference of a recipe
is about √(off + |weighted mean of its points|²).
"""

from __future__ import annotations

import math
from functools import cached_property, lru_cache
from itertools import combinations

import numpy as np
from scipy.optimize import nnls

from wembit.core.colour.basis import WEIGHTS
from wembit.core.colour.conversions import KNEE, xyz_rows_to_lab
from wembit.core.colour.difference import differences
from wembit.core.colour.mixture import reflectance, slope

STEP = 0.5  # CIELAB: over which the difference is laid straight
SHORTEST = 0.1  # ΔE00: nothing shorter is asked for
DIRECTIONS = 120  # in which the outline of the shelf is felt
_CUBE = np.array([[0, 116, 0], [500, -500, 0], [0, 200, -200]])


class Space:
    """Lots with these additive functions (n, 36) as points (n, 3) around the mix with that one, for a target in CIELAB; `m`:
    the constant of the mixing law.
    """

    def __init__(self, mixing: np.ndarray, middle: np.ndarray, target: np.ndarray, m: float) -> None:
        ratios = WEIGHTS @ reflectance(middle, m)
        bent = np.where(ratios > KNEE**3, np.maximum(ratios, 1e-12) ** (-2 / 3) / 3, 1 / (3 * KNEE**2))
        tangent = (_CUBE * bent) @ (WEIGHTS * slope(middle, m))
        form, nearest, self.off = _quadratic(xyz_rows_to_lab(ratios), target)
        self.points = (((mixing - middle) @ tangent.T - nearest) @ form).astype(np.float32)
        self.columns = np.ascontiguousarray(self.points.T)
        self.own = (self.points**2).sum(axis=1)
        self.order = np.argsort(self.own, kind="stable")  # nearest first

    def length(self, difference: float) -> float:
        """How long the mean of a recipe's points is at that ΔE00."""
        return math.sqrt(max(difference**2 - self.off, SHORTEST**2))

    def largest_shares(self, reach: float) -> np.ndarray:
        """The largest share (n,) of each lot in any recipe no longer than `reach`: the others cannot lead back further than
        the outline of the shelf.
        """
        outline, slower = self._outline
        return ((np.float32(reach) - outline) * slower).min(axis=1)

    @cached_property
    def _outline(self) -> tuple[np.ndarray, np.ndarray]:
        along = self.points @ _directions().T
        outline = along.min(axis=0)
        return outline, 1 / np.maximum(along - outline, 1e-6)

    def corners(self) -> list[int]:
        """The lots of the mix in any parts that comes closest."""
        far = max(1.0, float(np.abs(self.points).max())) * 100
        system = np.concatenate([self.points.T.astype(float), np.full((1, len(self.points)), far)])
        shares, _ = nnls(system, np.array([0, 0, 0, far]), maxiter=20 * len(self.points))
        return np.flatnonzero(shares > 1e-6).tolist()


@lru_cache(maxsize=1)
def _directions() -> np.ndarray:
    """Directions (n, 3) evenly around, on the spiral of the golden section."""
    height = 1 - (2 * np.arange(DIRECTIONS) + 1) / DIRECTIONS
    turn = np.pi * (1 + 5**0.5) * np.arange(DIRECTIONS)
    out = np.sqrt(1 - height**2)
    return np.stack([out * np.cos(turn), out * np.sin(turn), height], axis=1).astype(np.float32)


def _quadratic(middle: np.ndarray, target: np.ndarray) -> tuple[np.ndarray, np.ndarray, float]:
    """ΔE00² from `target` around the CIELAB colour `middle`, as |(step − nearest) @ form|² + off for steps from there."""
    around = [np.zeros(3), *(STEP * np.eye(3)), *(-STEP * np.eye(3))]
    around += [STEP * (np.eye(3)[i] + np.eye(3)[j]) for i, j in combinations(range(3), 2)]
    around += [-STEP * (np.eye(3)[i] + np.eye(3)[j]) for i, j in combinations(range(3), 2)]
    if np.abs(middle - target).max() < STEP / 10:  # at the target itself: the metric there, the same both ways
        steps = np.array(around)
        squares = differences(middle + steps / 2, middle - steps / 2) ** 2
    else:
        squares = differences(middle + np.array(around), target) ** 2
    here, ahead, behind = squares[0], squares[1:4], squares[4:7]
    rise = (ahead - behind) / (2 * STEP)
    form = np.diag((ahead + behind - 2 * here) / (2 * STEP**2))
    for at, (i, j) in enumerate(combinations(range(3), 2)):
        both = (squares[7 + at] + squares[10 + at] - 2 * here) / (2 * STEP**2)
        form[i, j] = form[j, i] = (both - form[i, i] - form[j, j]) / 2
    values, vectors = np.linalg.eigh(form)
    values = np.maximum(values, max(1e-4, values.max() / 200))
    nearest = -vectors @ ((vectors.T @ rise) / values) / 2
    off = float(here - (rise @ ((vectors / values) @ vectors.T) @ rise) / 4)
    return vectors * np.sqrt(values), nearest, off
