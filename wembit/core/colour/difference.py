"""CIEDE2000 colour difference.

Source: G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000 color-difference formula: implementation notes, supplementary test
data, and mathematical observations", Color Research & Application 30 (2005) 21–30; numbers below are its equations.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from .conversions import Lab

SAME, CLOSE, RELATED = 1.0, 2.5, 5.0


def delta_e_2000(one: Lab, two: Lab) -> float:
    """ΔE00 of two CIELAB colours with kL = kC = kH = 1."""
    return float(_formula(*one, *two, m=math))


def differences(one: np.ndarray, two: np.ndarray) -> np.ndarray:
    """ΔE00 of colours (…, 3) and (…, 3), broadcast against each other."""
    ones, twos = (np.moveaxis(np.asarray(each, dtype=float), -1, 0) for each in (one, two))
    return np.asarray(_formula(*ones, *twos, m=np))


def _formula(l1: Any, a1: Any, b1: Any, l2: Any, a2: Any, b2: Any, *, m: Any) -> Any:
    """The equations, with the functions of `m`: of math for one pair, of numpy for many."""
    mean_c = (m.hypot(a1, b1) + m.hypot(a2, b2)) / 2  # (2), (3)
    g = 0.5 * (1 - m.sqrt(mean_c**7 / (mean_c**7 + 25**7)))  # (4)
    a1, a2 = a1 * (1 + g) + 0.0, a2 * (1 + g) + 0.0  # (5); no negative zero, which atan2 would turn by 180°
    c1, c2 = m.hypot(a1, b1), m.hypot(a2, b2)  # (6)
    h1, h2 = m.degrees(m.atan2(b1, a1)) % 360, m.degrees(m.atan2(b2, a2)) % 360  # (7)
    dl, dc = l2 - l1, c2 - c1  # (8), (9)
    coloured = 1 * (c1 * c2 > 0)
    turn = coloured * (h2 - h1)  # (10)
    far = 1 * (turn > 180) - 1 * (turn < -180)
    turn = turn - 360 * far
    dh = 2 * m.sqrt(c1 * c2) * m.sin(m.radians(turn / 2))  # (11)
    l, c = (l1 + l2) / 2, (c1 + c2) / 2  # (12), (13)
    across = 180 * far * far * (1 - 2 * (h1 + h2 >= 360))
    h = coloured * ((h1 + h2) / 2 + across) + (1 - coloured) * (h1 + h2)  # (14)
    t = (
        1
        - 0.17 * m.cos(m.radians(h - 30))
        + 0.24 * m.cos(m.radians(2 * h))
        + 0.32 * m.cos(m.radians(3 * h + 6))
        - 0.20 * m.cos(m.radians(4 * h - 63))
    )  # (15)
    rotation = 30 * m.exp(-(((h - 275) / 25) ** 2))  # (16)
    rc = 2 * m.sqrt(c**7 / (c**7 + 25**7))  # (17)
    sl = 1 + 0.015 * (l - 50) ** 2 / m.sqrt(20 + (l - 50) ** 2)  # (18)
    sc = 1 + 0.045 * c  # (19)
    sh = 1 + 0.015 * c * t  # (20)
    rt = -m.sin(m.radians(2 * rotation)) * rc  # (21)
    squared = (dl / sl) ** 2 + (dc / sc) ** 2 + (dh / sh) ** 2 + rt * dc / sc * dh / sh
    return m.sqrt(squared * (squared > 0))  # (22)


def in_words(de00: float) -> str:
    """A difference ΔE00 as a maker says it, by the studio's borders 1, 2.5 and 5."""
    if de00 <= SAME:
        return "same to the eye"
    if de00 <= CLOSE:
        return "close"
    return "related" if de00 <= RELATED else "another colour"


def told_apart(one: Lab, two: Lab) -> bool:
    """Whether two wools that lie side by side are seen as two: further apart than close."""
    return delta_e_2000(one, two) > CLOSE


# How a blend by hand looks whose fibres differ so much; common practice
_HEATHERED = ((3.0, "even"), (12.0, "a little heathered"), (30.0, "heathered"))


def mottle_in_words(mottle: float) -> str:
    """The largest difference between two fibres of a hand blend, as its look."""
    return next((words for most, words in _HEATHERED if mottle <= most), "flecked, the fibres stay visible")
