"""The colour that is looked for: a bag's, a wool's, one that was picked, or three numbers of an instrument."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import TYPE_CHECKING
from urllib.parse import urlencode

from wembit.core import units
from wembit.core.colour.colour_words import colour_word
from wembit.core.colour.conversions import Ratios, lab, lab_to_xyz, ratios, xyz_to_lab, xyz_to_srgb
from wembit.web.colour.queries import Wool, Wools
from wembit.web.errors import Refusal

if TYPE_CHECKING:
    from typing import Any

HEX = re.compile("#?([0-9a-fA-F]{6})")


@dataclass(frozen=True)
class Target:
    """A colour with its name, the wool it is of where it is of one, and the words of an address that lead back to it."""

    name: str
    lab: tuple[float, float, float]
    ratios: Ratios
    srgb: str
    wool: Wool | None
    query: str


def target_of(given: Any, wools: Wools) -> Target | None:
    """The target that an address asks for by `lot`, `item` or `colour`; None where it names none.

    Raises `Refusal` for a colour that cannot be read.
    """
    for key, field in (("lot", "lot_id"), ("item", "item_id")):
        wanted = given.get(key, "")
        wool = next((row for row in reversed(wools.rows) if getattr(row, field) == wanted), None)
        if wool:
            return Target(wool.name, wool.lab, lab_to_xyz(wool.lab), wool.srgb, wool, urlencode({key: wanted}))
    text = given.get("colour", "").strip()[:60]
    return _read(text) if text else None


def _read(text: str) -> Target:
    if match := HEX.fullmatch(text):
        srgb = f"#{match[1].lower()}"
        name = f"{colour_word(*lab(srgb))}, {srgb}"
        return Target(name, lab(srgb), ratios(srgb), srgb, None, urlencode({"colour": srgb}))
    numbers = numbers_of(text)
    if numbers is None:
        raise Refusal("Write a colour as #6f7d43, or as lightness, a and b, like 50 -12 30.", "colour")
    light, a, b = numbers
    if not (0 <= light <= 100 and abs(a) <= 200 and abs(b) <= 200):
        raise Refusal("Lightness runs from 0 to 100, a and b from -200 to 200. Check the three numbers.", "colour")
    seen = lab_to_xyz(numbers)
    words = " ".join(f"{each:g}" for each in numbers)
    name = f"{colour_word(*numbers)}, L a b {words}"
    return Target(name, xyz_to_lab(seen), seen, xyz_to_srgb(seen), None, urlencode({"colour": words}))


def numbers_of(text: str) -> tuple[float, float, float] | None:
    """Three numbers: parted by spaces or semicolons with comma or point, or by commas with points."""
    for parts in (re.split(r"[;\s]+", text), text.split(",")):
        if len(parts) == 3:
            try:
                first, second, third = (
                    -units.number(p.strip()[1:]) if p.strip()[:1] in "-−" else units.number(p) for p in parts
                )
                return first, second, third
            except ValueError:
                continue
    return None
