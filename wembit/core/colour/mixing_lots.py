"""The lots of a shelf ready for matching and blending: colours, curves and their additive function, all at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..errors import BadInput
from .basis import WEIGHTS
from .conversions import lab_to_xyz, ratios, xyz_rows_to_lab
from .mixture import M, f
from .recovery import kept_curves

UNLIMITED = np.inf


@dataclass(frozen=True)
class MixingLots:
    """Lots in order: `ids`, CIELAB (n, 3), the additive function of their curves (n, 36), grams (n,), inf where
    unlimited, and the constant `m` of the mixing law.
    """

    ids: tuple[str, ...]
    labs: np.ndarray
    mixing: np.ndarray
    grams: np.ndarray
    m: float = M

    @classmethod
    def of_curves(cls, ids: Sequence[str], reflectances: np.ndarray, grams: np.ndarray, m: float = M) -> MixingLots:
        """Lots whose curves (n, 36) are known."""
        return cls(tuple(ids), xyz_rows_to_lab(reflectances @ WEIGHTS.T), f(reflectances, m), grams, m)

    @classmethod
    def of(cls, lots: Sequence[dict]) -> MixingLots:
        """Lots of a request, each with `id`, one of srgb, lab and reflectance, and perhaps grams.

        Raises `BadInput` for a CIELAB that no curve reaches.
        """
        reflectances = np.empty((len(lots), WEIGHTS.shape[1]))
        seen = [n for n, lot in enumerate(lots) if lot.get("reflectance") is None]
        for n, lot in enumerate(lots):
            if lot.get("reflectance") is not None:
                reflectances[n] = lot["reflectance"]
        colours = np.array([ratios_of(lots[n]) for n in seen]).reshape(-1, 3)
        found, reached = kept_curves(colours)
        reflectances[seen] = found
        for n, came in zip(seen, reached, strict=True):
            if not came:
                raise BadInput(f"lots[{n}].lab", "is a colour that no reflectance has", list(lots[n]["lab"]))
        labs = xyz_rows_to_lab(reflectances @ WEIGHTS.T)
        labs[seen] = xyz_rows_to_lab(colours)
        grams = [UNLIMITED if lot.get("grams") is None else lot["grams"] for lot in lots]
        return cls(tuple(lot["id"] for lot in lots), labs, f(reflectances), np.array(grams, dtype=float))


def ratios_of(seen: dict) -> tuple[float, float, float]:
    """X/Xn, Y/Yn, Z/Zn of what is given as one of srgb, lab and reflectance."""
    if seen.get("srgb") is not None:
        return ratios(seen["srgb"])
    if seen.get("lab") is not None:
        return lab_to_xyz(seen["lab"])
    x, y, z = WEIGHTS @ np.array(seen["reflectance"])
    return float(x), float(y), float(z)
