"""What a blend of fibres looks like: additive by mass in a function of reflectance, wavelength by wavelength.

Source: E. I. Stearns & F. Noechel, "Spectrophotometric prediction of color of wool blends", American Dyestuff Reporter 33
(1944) 177–180: f(R) = (1 − R) / (M(R − 0.01) + 0.01), with their constant for wool, M = 0.15.
"""

from __future__ import annotations

import numpy as np

M = 0.15
BLACK = 0.01


def f(reflectance: np.ndarray) -> np.ndarray:
    """The additive function of reflectances within (0, 1)."""
    return (1 - reflectance) / (M * (reflectance - BLACK) + BLACK)


def reflectance(mixed: np.ndarray) -> np.ndarray:
    """The reflectance of a value of f."""
    return (1 - BLACK * (1 - M) * mixed) / (1 + M * mixed)


def slope(mixed: np.ndarray) -> np.ndarray:
    """dR/df there."""
    return -(BLACK * (1 - M) + M) / (1 + M * mixed) ** 2


def blend(curves: np.ndarray, masses: np.ndarray) -> np.ndarray:
    """The reflectance (…, 36) of curves (n, 36) blended by masses (…, n), which need not add up to one."""
    masses = np.asarray(masses, dtype=float)
    return reflectance((masses / masses.sum(axis=-1, keepdims=True)) @ f(curves))
