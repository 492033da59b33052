"""The colour map of the shelf."""

from __future__ import annotations

from django.shortcuts import render
from django.views.decorators.http import require_GET

from wembit.web.stash.queries import fibre_lots

from .pictures import FULL_CHROMA, MAP_RADIUS, nearest, spots


@require_GET
def home(request):
    """All lots with a colour; `?lot=` sets the target, to which the nearest are joined."""
    lots = fibre_lots(request.studio)
    found = spots(lots)
    target = next((spot for spot in found if str(spot.lot.pk) == request.GET.get("lot", "")), None)
    rings = [(chroma, chroma * MAP_RADIUS / FULL_CHROMA) for chroma in (20, 40, 60)]
    return render(
        request,
        "colour/map.html",
        {
            "spots": found,
            "target": target,
            "near": nearest(target.lot, found) if target else [],
            "rings": rings,
            "without": len(lots) - len(found),
        },
    )
