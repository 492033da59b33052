"""The 36 wavelengths on which wool is seen: CIE 1931 2° observer under D65, plain sums.

Source: the CIE's 1-nm tables (CIE 018:2019; CIE 15:2018) at 380–730 nm by 10 nm, in basis.csv. White is the same sum over a
reflectance of 1, so that ratios to white are weighted means of a curve.
"""

from __future__ import annotations

from pathlib import Path

import numpy as np

_TABLE = np.loadtxt(Path(__file__).with_name("basis.csv"), delimiter=",", skiprows=1)
NM = _TABLE[:, 0]
_LIGHT = _TABLE[:, 1:4] * _TABLE[:, 4:]
WEIGHTS = (_LIGHT / _LIGHT.sum(axis=0)).T  # (3, 36): X/Xn, Y/Yn, Z/Zn of a curve are WEIGHTS @ curve
SIZE = len(NM)
