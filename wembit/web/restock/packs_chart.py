"""What a supplier sells, one row a wool, its packs as squares: their area is their grams, at the scale of the shelf."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.web.stash.models import FIBRE
from wembit.web.stash.shelf.shelf_chart import PX2_PER_GRAM
from wembit.web.stash.swatch import UNTOLD

if TYPE_CHECKING:
    from collections.abc import Iterable, Mapping
    from uuid import UUID

    from wembit.web.stash.models import Item

    from .models import Offer

SIDE_PX, MOST_PX = (
    26.0,
    160.0,
)  # of what is counted; of the largest pack that is still drawn to scale (a kilogram is 161)


@dataclass(frozen=True)
class Row:
    """A wool (or notion) with its colour and its packs, small ones first, each with the side of its square in px."""

    item: Item
    colour: str
    packs: list[tuple[Offer, float]]


def by_item(offers: Iterable[Offer], colours: Mapping[UUID, str]) -> list[Row]:
    """The offers by item, in the order of their names."""
    rows: dict[UUID, list[Offer]] = {}
    for offer in sorted(offers, key=lambda offer: (offer.item.kind != FIBRE, offer.item.name, offer.pack)):
        rows.setdefault(offer.item_id, []).append(offer)
    return [
        Row(packs[0].item, colours.get(pk, UNTOLD), [(offer, _side(offer)) for offer in packs])
        for pk, packs in rows.items()
    ]


def _side(offer: Offer) -> float:
    if offer.item.kind != FIBRE:
        return SIDE_PX
    return min(MOST_PX, math.sqrt(float(offer.pack) * PX2_PER_GRAM))
