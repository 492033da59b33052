"""CIEDE2000 colour difference.

Source: G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000 color-difference formula: implementation notes, supplementary test
data, and mathematical observations", Color Research & Application 30 (2005) 21–30; numbers below are its equations.
"""

from __future__ import annotations

from math import atan2, cos, degrees, exp, hypot, radians, sin, sqrt

Lab = tuple[float, float, float]


def ciede2000(one: Lab, two: Lab) -> float:
    """ΔE00 of two CIELAB colours with kL = kC = kH = 1."""
    (l1, a1, b1), (l2, a2, b2) = one, two
    mean_c = (hypot(a1, b1) + hypot(a2, b2)) / 2  # (2), (3)
    g = 0.5 * (1 - sqrt(mean_c**7 / (mean_c**7 + 25**7)))  # (4)
    a1, a2 = a1 * (1 + g), a2 * (1 + g)  # (5)
    c1, c2 = hypot(a1, b1), hypot(a2, b2)  # (6)
    h1, h2 = _hue(a1, b1), _hue(a2, b2)  # (7)
    dl, dc = l2 - l1, c2 - c1  # (8), (9)
    turn = h2 - h1 if c1 * c2 else 0.0  # (10)
    turn -= 360 if turn > 180 else -360 if turn < -180 else 0
    dh = 2 * sqrt(c1 * c2) * sin(radians(turn / 2))  # (11)
    l, c = (l1 + l2) / 2, (c1 + c2) / 2  # (12), (13)
    if not c1 * c2:  # (14)
        h = h1 + h2
    elif abs(h1 - h2) <= 180:
        h = (h1 + h2) / 2
    else:
        h = (h1 + h2 + (360 if h1 + h2 < 360 else -360)) / 2
    t = (
        1
        - 0.17 * cos(radians(h - 30))
        + 0.24 * cos(radians(2 * h))
        + 0.32 * cos(radians(3 * h + 6))
        - 0.20 * cos(radians(4 * h - 63))
    )  # (15)
    rotation = 30 * exp(-(((h - 275) / 25) ** 2))  # (16)
    rc = 2 * sqrt(c**7 / (c**7 + 25**7))  # (17)
    sl = 1 + 0.015 * (l - 50) ** 2 / sqrt(20 + (l - 50) ** 2)  # (18)
    sc = 1 + 0.045 * c  # (19)
    sh = 1 + 0.015 * c * t  # (20)
    rt = -sin(radians(2 * rotation)) * rc  # (21)
    return sqrt((dl / sl) ** 2 + (dc / sc) ** 2 + (dh / sh) ** 2 + rt * dc / sc * dh / sh)  # (22)


def _hue(a: float, b: float) -> float:
    return degrees(atan2(b, a)) % 360 if a or b else 0.0


def in_words(de00: float) -> str:
    if de00 <= 1:
        return "same to the eye"
    if de00 <= 2.5:
        return "close"
    return "related" if de00 <= 5 else "another colour"
