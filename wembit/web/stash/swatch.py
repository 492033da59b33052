"""The colour seen of a lot, in all the ways it is kept: for the screen, in CIELAB, its hue, and the reflectance behind it.

The curve is recovered once, when the colour is told, or measured; blends and cover are worked out from it.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from wembit.core.colour.basis import WEIGHTS
from wembit.core.colour.colour_words import colour_word
from wembit.core.colour.conversions import lab, lab_to_xyz, ratios, xyz_to_lab, xyz_to_srgb
from wembit.core.colour.recovery import curves
from wembit.web.errors import Refusal

KEPT_AS = "<f4"
UNTOLD = "#cfcfcf"  # on a screen, where nobody has told a colour
NONE = {"srgb": "", "lab_l": None, "lab_a": None, "lab_b": None, "hue": "", "curve": None}
LOOK = tuple(NONE)


def swatch(srgb: str) -> dict:
    """The lot's fields of a colour `#rrggbb`; all empty for ''."""
    return swatches([srgb])[0]


def swatches(colours: Sequence[str]) -> list[dict]:
    """The same of many, their curves recovered together."""
    given = [srgb for srgb in colours if srgb]
    found = iter(curves(np.array([ratios(srgb) for srgb in given]))[0] if given else [])
    return [_fields(srgb.lower(), lab(srgb), next(found)) if srgb else dict(NONE) for srgb in colours]


def swatch_of_lab(colour: Sequence[float]) -> dict:
    """The fields of a CIELAB colour. Raises `Refusal` where no wool can have it."""
    found, reached = curves(np.array([lab_to_xyz((colour[0], colour[1], colour[2]))]))
    if not reached[0]:
        raise Refusal(
            "No wool can have that colour. Check the three numbers: lightness 0 to 100, then a and b.", "colour"
        )
    return swatch_of_curve(found[0])


def swatch_of_curve(curve: np.ndarray) -> dict:
    """The fields of a reflectance (36,), as an instrument measured it."""
    seen = tuple(WEIGHTS @ curve)
    return _fields(xyz_to_srgb(seen), xyz_to_lab(seen), curve)


def _fields(srgb: str, colour: Sequence[float], curve: np.ndarray) -> dict:
    light, a, b = (float(each) for each in colour)
    hue = colour_word(light, a, b)
    return dict(zip(LOOK, (srgb, light, a, b, hue, curve.astype(KEPT_AS).tobytes()), strict=True))


def curve_of(kept: bytes) -> np.ndarray:
    """The reflectance (36,) of what was kept."""
    return np.frombuffer(kept, dtype=KEPT_AS).astype(float)
