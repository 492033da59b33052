"""Stored parts as placing wants them, and what of each is hidden where they meet."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from functools import lru_cache

from wembit.core.contract.requests import SHAPE
from wembit.core.errors import BadInput
from wembit.core.pose.placing import Placed, PlacedPart, Seat, place
from wembit.core.pose.skin import visible_shares
from wembit.core.shape.solids import solid
from wembit.web.caches import by_content
from wembit.web.figures.models import Part

KEPT_FIGURES = 12  # some 40 kB a piece


def placed_part(part: Part) -> PlacedPart:
    """A stored part as placing wants it."""
    return PlacedPart(part.key, part.count, solid(SHAPE(part.shape, "shape")), Seat.of(part.seat))


def placed(parts: Sequence[Part]) -> list[Placed]:
    """Every piece of the parts in space; worked out once while shapes and seats stay. Raises `BadInput`."""
    return list(_placed(_stuff(parts)))


def carried(parts: Sequence[Part], key: str) -> set[str]:
    """The keys of a part and of all that sits on it, and on that: it cannot sit on any of them."""
    found = {key}
    while more := {part.key for part in parts if part.seat.get("on") in found} - found:
        found |= more
    return found


def _stuff(parts: Sequence[Part]) -> str:
    return json.dumps([[part.key, part.count, part.shape, part.seat] for part in parts])


@lru_cache(maxsize=KEPT_FIGURES)
def _placed(stuff: str) -> tuple[Placed, ...]:
    return tuple(
        place(
            [
                placed_part(Part(key=key, count=count, shape=shape, seat=seat))
                for key, count, shape, seat in json.loads(stuff)
            ]
        )
    )


def visible(parts: Sequence[Part]) -> dict[str, float]:
    """By key, the share of each part's skin that no join hides; kept while shapes and seats stay. Scale does not matter.

    Without an answer where the parts cannot be placed: then nothing counts as hidden.
    """
    if all(part.visible is not None for part in parts):
        return {}
    mark = hashlib.sha256(_stuff(parts).encode()).hexdigest()
    return by_content.get_or_make(("visible", mark), "", lambda: _visible(parts))


def _visible(parts: Sequence[Part]) -> dict[str, float]:
    try:
        return visible_shares(placed(parts))
    except BadInput:
        return {}
