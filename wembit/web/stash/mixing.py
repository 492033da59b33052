"""The studio's own blends whose colour was told when they came out, and what they say of its mixing."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING
from uuid import UUID

import numpy as np
from django.db.models import F

from wembit.core.learning.mixing import CardedBlend, Mixing, learnt_mixing
from wembit.web.caches import kept_until_pressed

from .models import BLENDED_IN, BLENDED_OUT, Lot, Movement, standing
from .swatch import curve_of

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

LAST = 60  # blends that are looked at
STUDIOS_KEPT = 64  # in a process


@dataclass(frozen=True)
class ToldBlend:
    """A bag that was carded, the colour that was expected then, and the blend as it came out."""

    lot: Lot
    carded: CardedBlend


def told_blends(studio: Studio) -> list[ToldBlend]:
    """The last blends whose bag was given another colour than the expected one, the newest first. Two queries."""
    lots = Lot.objects.of(studio).exclude(predicted="").exclude(predicted=F("srgb")).filter(curve__isnull=False)
    came = Movement.objects.of(studio).filter(standing("entry"), kind=BLENDED_IN, amount__gt=0, lot__in=lots)
    rows = list(came.select_related("lot__item").order_by("-entry__recorded_at")[:LAST])
    went: dict[UUID, list[tuple[bytes | None, float]]] = {}
    out = Movement.objects.of(studio).filter(kind=BLENDED_OUT, entry__in=[row.entry_id for row in rows])
    for entry, curve, amount in out.values_list("entry", "lot__curve", "amount"):
        went.setdefault(entry, []).append((bytes(curve) if curve else None, -float(amount)))
    return [
        ToldBlend(row.lot, _carded(row.lot, went[row.entry_id]))
        for row in rows
        if all(curve is not None for curve, _ in went[row.entry_id])
    ]


def _carded(lot: Lot, taken: list[tuple[bytes | None, float]]) -> CardedBlend:
    curves = np.array([curve_of(curve or b"") for curve, _ in taken])
    return CardedBlend(
        curves, np.array([grams for _, grams in taken]), (lot.lab_l or 0, lot.lab_a or 0, lot.lab_b or 0)
    )


@kept_until_pressed(STUDIOS_KEPT)
def mixing_of(studio: Studio) -> Mixing:
    """The constant with which this studio's blends are predicted; kept in this process until the next press."""
    return learnt_mixing([each.carded for each in told_blends(studio)])
