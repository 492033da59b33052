"""How the studio's hands differ from the rule: as its bench has learnt it, for the estimates of every room."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TYPE_CHECKING, Any

from wembit.core.learning.calibration import UNKNOWN, Calibration

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.studio.models import Studio

MINUTES = "minutes"  # what work takes, beside what layers take
ALL = ""  # the hands of the studio taken together
SOLID = ("core", "padding")  # of these a hand is known by firmness, of the others by what they are


def counts_for(layer: Mapping[str, Any], part_firmness: str) -> str:
    """What a layer of the core's request counts for: the firmness of what is solid and has no density of its own, else its
    role.
    """
    if layer["role"] not in SOLID or "density_g_cm3" in layer:
        return layer["role"]
    return layer.get("firmness") or part_firmness or layer["role"]


def hand(studio: Studio, key: str, maker: UUID | None = None) -> Calibration:
    """The hand at such a layer: the maker's own where it is known, else the studio's."""
    own = studio.hands.get(str(maker), {}).get(key) if maker else None
    found = own or studio.hands.get(ALL, {}).get(key)
    return Calibration(*found) if found else UNKNOWN
