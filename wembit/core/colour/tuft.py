"""A tuft of a hand blend as it will look: strands whose colours come from the same curves as the blend's.

A strand stands for a bundle of fibres that lie together. Before the first pass a bundle is of one wool; every pass on the
carders pulls bundles in two and lays the halves together with others, so that a bundle after n passes holds about 2ⁿ portions
drawn from the whole (doubling, as in the drafting of slivers; the share of each wool is binomial). From arm's length the eye
runs several bundles together. The number of portions is common practice, not measured.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from .basis import WEIGHTS
from .conversions import xyz_to_srgb
from .mixture import M, f, reflectance

PASSES = {1: "after one pass", 3: "after three passes", 8: "after many passes"}
STRANDS, LONG_MM, HIGH_MM = 70, 60.0, 26.0
AT_ARMS_LENGTH = 8  # bundles that the eye runs together


@dataclass(frozen=True)
class Strand:
    """A cubic curve in mm through four points, and its colour."""

    points: tuple[tuple[float, float], ...]
    srgb: str


def portions(passes: int, close: bool) -> int:
    """Of how many portions a strand that is seen consists."""
    return 2**passes * (1 if close else AT_ARMS_LENGTH)


def tuft(
    curves: np.ndarray, parts: Sequence[int], passes: int, *, close: bool = True, seed: int = 0, m: float = M
) -> list[Strand]:
    """The strands of a tuft of curves (k, 36) blended in those parts, the hindmost first. The same seed, the same tuft."""
    chance = np.random.default_rng(seed)
    shares = np.asarray(parts, dtype=float) / sum(parts)
    many = portions(passes, close)
    held = chance.multinomial(many, shares, STRANDS) / many
    seen = reflectance(held @ f(curves, m), m) @ WEIGHTS.T
    across = np.linspace(-1, 1, STRANDS)
    chance.shuffle(across)
    strands = []
    for place, ratios in zip(across, seen, strict=True):
        reach = LONG_MM / 2 * (1 - 0.35 * place * place) * chance.uniform(0.82, 1.0)
        bow = chance.normal(0, HIGH_MM / 16, 4)
        xs = np.array([-reach, -reach / 3, reach / 3, reach])
        ys = place * HIGH_MM / 2 * np.array([0.35, 1.0, 1.0, 0.35]) + bow
        points = tuple((round(float(x), 1), round(float(y), 1)) for x, y in zip(xs, ys, strict=True))
        strands.append(Strand(points, xyz_to_srgb(tuple(ratios))))
    return strands
