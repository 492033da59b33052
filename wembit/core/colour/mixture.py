"""What a blend of fibres looks like: additive by mass in a function of reflectance, wavelength by wavelength.

Source: E. I. Stearns & F. Noechel, "Spectrophotometric prediction of color of wool blends", American Dyestuff Reporter 33
(1944) 177–180: f(R) = (1 − R) / (M(R − 0.01) + 0.01), with their constant for wool, M = 0.15, where a studio's own blends
have not taught another (learning/mixing.py).
"""

from __future__ import annotations

import numpy as np

M = 0.15
BLACK = 0.01


def f(reflectance: np.ndarray, m: float | np.ndarray = M) -> np.ndarray:
    """The additive function of reflectances within (0, 1)."""
    return (1 - reflectance) / (m * (reflectance - BLACK) + BLACK)


def reflectance(mixed: np.ndarray, m: float | np.ndarray = M) -> np.ndarray:
    """The reflectance of a value of f."""
    return (1 - BLACK * (1 - m) * mixed) / (1 + m * mixed)


def slope(mixed: np.ndarray, m: float = M) -> np.ndarray:
    """dR/df there."""
    return -(BLACK * (1 - m) + m) / (1 + m * mixed) ** 2


def blend(curves: np.ndarray, masses: np.ndarray, m: float = M) -> np.ndarray:
    """The reflectance (…, 36) of curves (n, 36) blended by masses (…, n), which need not add up to one."""
    masses = np.asarray(masses, dtype=float)
    return reflectance((masses / masses.sum(axis=-1, keepdims=True)) @ f(curves, m), m)
