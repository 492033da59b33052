"""sRGB to CIELAB under D65, 2° observer, and hue sectors.

Sources: IEC 61966-2-1:1999 (curve and matrix), CIE 15:2018 (CIELAB). Each row of the matrix is scaled so that #ffffff is
the white; then X/Xn, Y/Yn, Z/Zn need no table and greys have a* = b* = 0 exactly.
"""

from __future__ import annotations

import math

MATRIX = ((0.4124, 0.3576, 0.1805), (0.2126, 0.7152, 0.0722), (0.0193, 0.1192, 0.9505))
GREY_BELOW = 8.0  # chroma below which wool is called a grey; common practice of shade cards
HUES = ("pink", "red", "yellow", "green", "sea", "sky", "blue", "violet")
GREY = "grey"


def linear(value: float) -> float:
    """Linear light of one sRGB channel in 0–1."""
    return value / 12.92 if value <= 0.04045 else ((value + 0.055) / 1.055) ** 2.4


def lab(srgb: str) -> tuple[float, float, float]:
    """CIELAB of `#rrggbb`."""
    rgb = [linear(int(srgb[i : i + 2], 16) / 255) for i in (1, 3, 5)]
    ratios = [sum(m * c for m, c in zip(row, rgb, strict=True)) / sum(row) for row in MATRIX]
    fx, fy, fz = (_f(ratio) for ratio in ratios)
    return 116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)


def _f(t: float) -> float:
    return t ** (1 / 3) if t > (6 / 29) ** 3 else t / (3 * (6 / 29) ** 2) + 4 / 29


def chroma_hue(a: float, b: float) -> tuple[float, float]:
    """Chroma, and hue in degrees 0–360."""
    return math.hypot(a, b), math.degrees(math.atan2(b, a)) % 360


def sector(a: float, b: float) -> str:
    """One of the eight hue sectors of 45° each, the first centred on 0°, or grey."""
    chroma, hue = chroma_hue(a, b)
    return GREY if chroma < GREY_BELOW else HUES[int((hue + 22.5) // 45) % 8]
