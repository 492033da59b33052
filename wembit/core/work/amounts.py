"""Lengths and weights inside the words of a step, so that each maker reads them in the units of the house."""

from __future__ import annotations

import re
from collections.abc import Callable

ROUGH_MM = 10.0
AMOUNT = re.compile(r"\{(mm|g):([0-9.e+-]+)\}")


def mm(length: float) -> str:
    """A length in mm within words."""
    return f"{{mm:{length:.4g}}}"


def about(length: float) -> str:
    """A length in mm that is reckoned and not told: whole from 10 mm, in halves below."""
    return mm(max(0.5, round(length) if length >= ROUGH_MM else round(2 * length) / 2))


def grams(weight: float) -> str:
    """A weight in g within words."""
    return f"{{g:{weight:.4g}}}"


def spoken(words: str, length: Callable[[float], str], weight: Callable[[float], str]) -> str:
    """The words with every length and weight as these say it, from mm and g."""
    say = {"mm": length, "g": weight}
    return AMOUNT.sub(lambda found: say[found[1]](float(found[2])), words)


def plainly(words: str) -> str:
    """The words in mm and g."""
    return spoken(words, lambda length: f"{length:g} mm", lambda weight: f"{weight:g} g")
