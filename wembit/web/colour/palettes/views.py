"""The shelf's colours as files and on paper: GIMP palettes both ways, a shade card to print."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.http import HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET, require_http_methods

from wembit.core.colour.colour_words import MANY, ORDER
from wembit.core.colour.gimp_palette import Unreadable, read_palette, write_palette
from wembit.web import clock
from wembit.web.colour.map.nearest_and_blends import singles
from wembit.web.colour.map.target import target_of
from wembit.web.colour.queries import Wool, wools
from wembit.web.errors import Refusal
from wembit.web.limits import PALETTE_BYTES
from wembit.web.responses import again, tried

if TYPE_CHECKING:
    from wembit.web.request import Request

SHOWN = 200


def in_order(rows: list[Wool]) -> list[Wool]:
    """Wools in true order: by their words, whites first and black last, each from pale to dark."""
    place = {hue: n for n, hue in enumerate(ORDER)}
    return sorted(rows, key=lambda wool: (place[wool.hue], -wool.lab[0], wool.name))


@require_GET
def palette(request: Request) -> HttpResponse:
    """The shelf's colours as a GIMP palette, in true order."""
    rows = in_order(wools(request.studio).rows)
    text = write_palette(
        f"{request.studio.name} {clock.today(request.studio)}", [(w.srgb, f"{w.name}, {w.what}") for w in rows]
    )
    response = HttpResponse(text, content_type="text/plain; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{request.studio.slug}.gpl"'
    return response


@require_http_methods(["GET", "POST"])
def palette_in(request: Request) -> HttpResponse:
    """The colours of a palette, each with what the shelf can do. Nothing is kept."""
    if request.method == "GET":
        return render(request, "colour/palettes/palette_in.html", {})
    targets, faults = tried(lambda: _targets(request))
    if faults:
        return again(request, "colour/palettes/palette_in.html", {}, faults)
    return render(request, "colour/palettes/palette_in.html", targets)


def _targets(request: Request) -> dict:
    upload = request.FILES.get("palette")
    if upload is None:
        raise Refusal("Choose a GIMP palette, a file that ends in .gpl.", "palette")
    if (upload.size or 0) > PALETTE_BYTES:
        raise Refusal("That file is larger than half a megabyte. Send a smaller palette.", "palette")
    try:
        name, colours = read_palette(upload.read().decode("utf-8", errors="replace"))
    except Unreadable as fault:
        raise Refusal(str(fault), "palette") from None
    shelf, rows = wools(request.studio), []
    for srgb, called in colours[:SHOWN]:
        target = target_of({"colour": srgb}, shelf)
        if target is not None:
            rows.append((called or srgb, target, singles(target, shelf, 1)))
    return {"name": name or upload.name, "rows": rows, "more": max(0, len(colours) - SHOWN)}


@require_GET
def shade_card(request: Request) -> HttpResponse:
    """All colours in true order with names, dye lots and a spot for the wool, to be printed."""
    groups: dict[str, list[Wool]] = {}
    for wool in in_order(wools(request.studio).rows):
        groups.setdefault(MANY[wool.hue], []).append(wool)
    return render(request, "colour/palettes/shade_card.html", {"groups": groups.items()})
