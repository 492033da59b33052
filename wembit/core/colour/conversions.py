"""sRGB to CIELAB under D65, 2° observer.

Sources: IEC 61966-2-1:1999 (curve and matrix), CIE 15:2018 (CIELAB). Each row of the matrix is scaled so that #ffffff is
the white; then X/Xn, Y/Yn, Z/Zn need no table and greys have a* = b* = 0 exactly.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

import numpy as np

Lab = tuple[float, float, float]
Ratios = tuple[float, float, float]
MATRIX = ((0.4124, 0.3576, 0.1805), (0.2126, 0.7152, 0.0722), (0.0193, 0.1192, 0.9505))
_SCALED = np.array([[value / sum(row) for value in row] for row in MATRIX])
KNEE = 6 / 29  # below its cube CIELAB runs straight
GREY_BELOW = 8.0  # chroma below which wool is called a grey; common practice of shade cards


def linear(value: float) -> float:
    """Linear light of one sRGB channel in 0–1."""
    return value / 12.92 if value <= 0.04045 else ((value + 0.055) / 1.055) ** 2.4


@lru_cache(maxsize=20_000)
def ratios(srgb: str) -> Ratios:
    """X/Xn, Y/Yn, Z/Zn of `#rrggbb`."""
    rgb = [linear(int(srgb[i : i + 2], 16) / 255) for i in (1, 3, 5)]
    x, y, z = (sum(m * c for m, c in zip(row, rgb, strict=True)) / sum(row) for row in MATRIX)
    return x, y, z


def xyz_to_lab(found: Sequence[float]) -> Lab:
    """CIELAB of X/Xn, Y/Yn, Z/Zn."""
    fx, fy, fz = (_f(ratio) for ratio in found)
    return 116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)


def xyz_rows_to_lab(found: np.ndarray) -> np.ndarray:
    """CIELAB (…, 3) of X/Xn, Y/Yn, Z/Zn (…, 3)."""
    fx, fy, fz = np.moveaxis(np.where(found > KNEE**3, np.cbrt(found), found / (3 * KNEE**2) + 4 / 29), -1, 0)
    return np.stack([116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)], axis=-1)


def lab_to_xyz(found: Lab) -> Ratios:
    """X/Xn, Y/Yn, Z/Zn of CIELAB; below 0 where there is no such light."""
    fy = (found[0] + 16) / 116
    x, y, z = (t**3 if t > KNEE else (t - 4 / 29) * 3 * KNEE**2 for t in (fy + found[1] / 500, fy, fy - found[2] / 200))
    return x, y, z


def xyz_to_srgb(found: Sequence[float]) -> str:
    """`#rrggbb` of X/Xn, Y/Yn, Z/Zn, clipped to what a screen shows."""
    rgb = np.clip(np.linalg.solve(_SCALED, np.asarray(found, dtype=float)), 0, 1)
    bent = np.where(rgb <= 0.0031308, rgb * 12.92, 1.055 * rgb ** (1 / 2.4) - 0.055)
    return "#" + "".join(f"{round(float(value) * 255):02x}" for value in bent)


def lab(srgb: str) -> Lab:
    """CIELAB of `#rrggbb`."""
    return xyz_to_lab(ratios(srgb))


def _f(t: float) -> float:
    return t ** (1 / 3) if t > KNEE**3 else t / (3 * KNEE**2) + 4 / 29


def chroma_hue(a: float, b: float) -> tuple[float, float]:
    """Chroma, and hue in degrees 0–360."""
    return math.hypot(a, b), math.degrees(math.atan2(b, a)) % 360
