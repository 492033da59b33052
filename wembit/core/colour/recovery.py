"""Reflectance curves from tristimulus values: the smoothest curve within 0 and 1 that is seen as that colour.

Source: S. A. Burns, "Numerical methods for smoothest reflectance reconstruction", Color Research & Application 45 (2020)
8–21: least slope squared of z = atanh(2R − 1) with the exact tristimulus, by Lagrange and Newton. The matrix of a step is
tridiagonal with a border of three; all colours take their steps together.
"""

from __future__ import annotations

import numpy as np

from .basis import SIZE, WEIGHTS

DARKEST, PALEST = 1e-5, 1 - 1e-5  # beyond them a flat curve of that luminance stands
EXACT, STEPS, LONGEST = 1e-9, 60, 1.0
FEW = 3  # colours for which a dense solve is quicker
STAGES = 12  # ways from grey for what does not come at once
KEPT = 20_000  # curves that a process keeps, some 10 MB
_kept: dict[bytes, tuple[np.ndarray, np.bool_]] = {}
_SLOPE = np.full(SIZE, 4.0)
_SLOPE[[0, -1]] = 2.0
_BESIDE = -2.0


def kept_curves(ratios: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """`curves`, each worked out once for a process, while there is room."""
    ratios = np.asarray(ratios, dtype=float).reshape(-1, 3)
    keys = [row.tobytes() for row in ratios]
    known = {key: row for key in keys if (row := _kept.get(key)) is not None}
    new = {key: place for place, key in enumerate(keys) if key not in known}
    if new:
        fresh = dict(zip(new, zip(*curves(ratios[list(new.values())]), strict=True), strict=True))
        if len(_kept) + len(fresh) > KEPT:
            _kept.clear()
        _kept.update(fresh)
        known |= fresh
    rows = [known[key] for key in keys]
    return np.array([curve for curve, _ in rows]).reshape(-1, SIZE), np.array([came for _, came in rows], dtype=bool)


def curves(ratios: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """The curves (n, 36), within (0, 1), of X/Xn, Y/Yn, Z/Zn (n, 3), and which of them were found, a boolean mask (n,); the
    rest are those that no curve reaches.
    """
    ratios = np.asarray(ratios, dtype=float).reshape(-1, 3)
    luminance = ratios[:, 1]
    flat = (luminance < DARKEST) | (luminance > PALEST)
    found = np.where(flat[:, None], np.clip(luminance, DARKEST, PALEST)[:, None], np.nan) * np.ones(SIZE)
    reached = flat.copy()
    wanted = np.flatnonzero(~flat)
    if len(wanted):
        z, came = _newton(ratios[wanted], np.zeros((len(wanted), SIZE)), np.zeros((len(wanted), 3)))[::2]
        found[wanted[came]], reached[wanted[came]] = _curve(z[came]), True
        for index in wanted[~came]:
            curve = _in_stages(ratios[index])
            if curve is not None:
                found[index], reached[index] = curve, True
    return found, reached


def _in_stages(ratios: np.ndarray) -> np.ndarray | None:
    """The curve of one colour, led up to it from the grey of its luminance; None where the way ends before."""
    grey = np.full(3, ratios[1])
    z, border = np.zeros((1, SIZE)), np.zeros((1, 3))
    done, step = 0.0, 1 / STAGES
    while done < 1:
        share = min(1.0, done + step)
        next_z, next_border, came = _newton((grey + (ratios - grey) * share)[None], z, border)
        if came[0]:
            z, border, done = next_z, next_border, share
            step *= 1.5
        elif step < 1e-4:
            return None
        else:
            step /= 3
    return _curve(z)[0]


def _curve(z: np.ndarray) -> np.ndarray:
    return (np.tanh(z) + 1) / 2


def _newton(ratios: np.ndarray, z: np.ndarray, border: np.ndarray) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Newton's steps from z (n, 36) and multipliers (n, 3): both where they end, and which came to the exact colour."""
    z, border = z.copy(), border.copy()
    came = np.zeros(len(z), dtype=bool)
    going = np.arange(len(z))
    for _ in range(STEPS):
        now, pull = z[going], border[going] @ WEIGHTS
        tanh = np.tanh(now)
        slope = (1 - tanh * tanh) / 2  # dR/dz
        bent = -2 * tanh * slope
        smooth = _SLOPE * now
        smooth[:, 1:] += _BESIDE * now[:, :-1]
        smooth[:, :-1] += _BESIDE * now[:, 1:]
        level = smooth + slope * pull
        off = (tanh + 1) / 2 @ WEIGHTS.T - ratios[going]
        exact = (np.abs(off).max(axis=1) < EXACT) & (np.abs(level).max(axis=1) < 1e-6)
        came[going[exact]] = True
        going, level, off, slope, bent, pull = (each[~exact] for each in (going, level, off, slope, bent, pull))
        if not len(going):
            break
        step = _solved if len(going) > FEW else _solved_at_once
        dz, db = step(_SLOPE + bent * pull, slope[:, :, None] * WEIGHTS.T, level, off)
        most = np.abs(dz).max(axis=1)
        short = np.where(most > LONGEST, LONGEST / np.maximum(most, LONGEST), 1.0)[:, None]
        kept = np.isfinite(dz).all(axis=1) & np.isfinite(db).all(axis=1)
        z[going[kept]] -= (dz * short)[kept]
        border[going[kept]] -= (db * short)[kept]
        going = going[kept]
    return z, border, came


def _solved_at_once(
    diagonal: np.ndarray, edge: np.ndarray, level: np.ndarray, off: np.ndarray
) -> tuple[np.ndarray, np.ndarray]:
    """The same step for a few, by a dense solve of all unknowns."""
    whole = np.zeros((len(diagonal), SIZE + 3, SIZE + 3))
    along = np.arange(SIZE)
    whole[:, along, along] = diagonal
    whole[:, along[1:], along[:-1]] = whole[:, along[:-1], along[1:]] = _BESIDE
    whole[:, :SIZE, SIZE:], whole[:, SIZE:, :SIZE] = edge, np.swapaxes(edge, 1, 2)
    try:
        solved = np.linalg.solve(whole, np.concatenate([level, off], axis=1)[..., None])[..., 0]
    except np.linalg.LinAlgError:
        solved = np.full((len(diagonal), SIZE + 3), np.nan)
    return solved[:, :SIZE], solved[:, SIZE:]


def _solved(
    diagonal: np.ndarray, edge: np.ndarray, level: np.ndarray, off: np.ndarray
) -> tuple[np.ndarray, np.ndarray]:
    """One step for all: [T E; Eᵀ 0] [dz; db] = [level; off], T tridiagonal with `diagonal` and −2 beside it.

    All unknowns but the last of z are eliminated in their order, the last one and the border of three by a dense solve: T
    alone is singular where a curve is flat, its first 35 rows are not.
    """
    count = len(diagonal)
    last = SIZE - 1
    right = np.concatenate([edge[:, :last], level[:, :last, None]], axis=2)  # (n, 35, 4), and a column for the last z
    ahead = np.zeros((count, last))
    ahead[:, -1] = _BESIDE
    right = np.concatenate([right, ahead[:, :, None]], axis=2)
    pivot = np.empty((last, count))
    pivot[0] = diagonal[:, 0]
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        for k in range(1, last):
            share = _BESIDE / pivot[k - 1]
            pivot[k] = diagonal[:, k] - share * _BESIDE
            right[:, k] -= share[:, None] * right[:, k - 1]
        right[:, -1] /= pivot[-1][:, None]
        for k in range(last - 2, -1, -1):
            right[:, k] = (right[:, k] - _BESIDE * right[:, k + 1]) / pivot[k][:, None]
        # z[:last] = right[..., 3] − right[..., :3] @ db − right[..., 4] · z_last
        small = np.empty((count, 4, 4))
        known = np.empty((count, 4))
        inner = np.swapaxes(edge[:, :last], 1, 2)  # (n, 3, 35)
        small[:, 0, 0] = diagonal[:, last] - _BESIDE * right[:, -1, 4]
        small[:, 0, 1:] = edge[:, last] - _BESIDE * right[:, -1, :3]
        known[:, 0] = level[:, last] - _BESIDE * right[:, -1, 3]
        small[:, 1:, 0] = edge[:, last] - (inner @ right[:, :, 4:])[..., 0]
        small[:, 1:, 1:] = -(inner @ right[:, :, :3])
        known[:, 1:] = off - (inner @ right[:, :, 3:4])[..., 0]
        good = np.isfinite(small).all(axis=(1, 2)) & np.isfinite(known).all(axis=1)
        small[~good] = np.eye(4)
        try:
            solved = np.linalg.solve(small, known[..., None])[..., 0]
        except np.linalg.LinAlgError:
            solved = (np.linalg.pinv(small) @ known[..., None])[..., 0]
        solved[~good] = np.nan
        dz = np.empty((count, SIZE))
        dz[:, last] = solved[:, 0]
        dz[:, :last] = right[:, :, 3] - (right[:, :, :3] @ solved[:, 1:, None])[..., 0] - right[:, :, 4] * solved[:, :1]
    return dz, solved[:, 1:]
