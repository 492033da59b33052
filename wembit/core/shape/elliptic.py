"""Carlson's symmetric elliptic integral R_G, for the area of an ellipsoid.

Source: B. C. Carlson, "Numerical computation of real or complex elliptic integrals", Numerical Algorithms 10 (1995)
13–26; DLMF 19.16.3 and 19.21.10 (R_G from R_F and R_D).
"""

from __future__ import annotations

import math
from functools import lru_cache


@lru_cache(maxsize=4096)
def carlson_rg(x: float, y: float, z: float) -> float:
    """R_G(x, y, z) for arguments ≥ 0 of which at least two are positive; symmetric, relative error below 1e-12."""
    x, z, y = sorted((x, y, z))  # the middle one stands as z, which keeps both terms positive
    root = math.sqrt(x * y / z)
    return (z * _rf(x, y, z) - (x - z) * (y - z) / 3 * _rd(x, y, z) + root) / 2


def _rf(x: float, y: float, z: float) -> float:
    while True:
        mean = (x + y + z) / 3
        dx, dy = 1 - x / mean, 1 - y / mean
        dz = -dx - dy
        if max(abs(dx), abs(dy), abs(dz)) < 1e-3:
            e2, e3 = dx * dy - dz * dz, dx * dy * dz
            return (1 - e2 / 10 + e3 / 14 + e2 * e2 / 24 - 3 * e2 * e3 / 44) / math.sqrt(mean)
        lam = _duplication(x, y, z)
        x, y, z = (x + lam) / 4, (y + lam) / 4, (z + lam) / 4


def _rd(x: float, y: float, z: float) -> float:
    total, weight = 0.0, 1.0
    while True:
        mean = (x + y + 3 * z) / 5
        dx, dy = 1 - x / mean, 1 - y / mean
        dz = -(dx + dy) / 3
        if max(abs(dx), abs(dy), abs(dz)) < 1e-3:
            xy, zz = dx * dy, dz * dz
            e2, e3, e4, e5 = xy - 6 * zz, (3 * xy - 8 * zz) * dz, 3 * (xy - zz) * zz, xy * zz * dz
            series = 1 - 3 * e2 / 14 + e3 / 6 + 9 * e2 * e2 / 88 - 3 * e4 / 22 - 9 * e2 * e3 / 52 + 3 * e5 / 26
            return 3 * total + weight * series / (mean * math.sqrt(mean))
        lam = _duplication(x, y, z)
        total += weight / (math.sqrt(z) * (z + lam))
        weight /= 4
        x, y, z = (x + lam) / 4, (y + lam) / 4, (z + lam) / 4


def _duplication(x: float, y: float, z: float) -> float:
    rx, ry, rz = math.sqrt(x), math.sqrt(y), math.sqrt(z)
    return rx * ry + ry * rz + rz * rx
