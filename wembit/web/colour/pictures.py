"""The colour map: lots by hue and chroma, as large as what is free of them."""

from __future__ import annotations

import math
from dataclasses import dataclass

from wembit.core.colour.difference import ciede2000, in_words

MAP_RADIUS = 300.0
FULL_CHROMA = 70.0
NEAREST = 5


@dataclass(frozen=True)
class Spot:
    lot: object
    x: float
    y: float
    radius: float


@dataclass(frozen=True)
class Near:
    lot: object
    de00: float
    words: str
    spot: Spot


def spots(lots) -> list[Spot]:
    """Lots with a colour on the map: a* to the right, b* upwards; the largest first, so that small ones lie on top."""
    found = []
    for lot in lots:
        if lot.lab_l is None:
            continue
        free = max(float(lot.on_hand - lot.promised), 0.0)
        scale = MAP_RADIUS / FULL_CHROMA
        found.append(Spot(lot, lot.lab_a * scale, -lot.lab_b * scale, 4 + math.sqrt(free) * 1.6))
    return sorted(found, key=lambda spot: -spot.radius)


def nearest(target, found: list[Spot]) -> list[Near]:
    """The lots nearest to a lot's colour by CIEDE2000, of other items."""
    lab = (target.lab_l, target.lab_a, target.lab_b)
    rows = []
    for spot in found:
        if spot.lot.item_id == target.item_id:
            continue
        de00 = ciede2000(lab, (spot.lot.lab_l, spot.lot.lab_a, spot.lot.lab_b))
        rows.append(Near(spot.lot, de00, in_words(de00), spot))
    return sorted(rows, key=lambda near: near.de00)[:NEAREST]
