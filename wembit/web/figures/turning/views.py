"""The turned drawing, the faces that the browser turns, and four views on one sheet."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.http import JsonResponse
from django.shortcuts import get_object_or_404, render
from django.views.decorators.http import require_GET

from wembit.web.asked import id_in, number_in
from wembit.web.figures import queries
from wembit.web.figures.models import Colourway
from wembit.web.figures.to_core.estimating import Palette

from .turned import board, faces, four_views, gaze_in, ways

if TYPE_CHECKING:
    from collections.abc import Sequence
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.figures.models import Figure, Part, Version
    from wembit.web.request import Request


def _looked_at(request: Request, figure: Figure) -> tuple[Version, Sequence[Part], Palette]:
    """The asked colourway with its version, else the newest version in its first one."""
    way_id = id_in(request.GET.get("way", ""))
    way: Colourway | None
    if way_id:
        ways_ = Colourway.objects.of(request.studio).select_related("studio", "version__studio")
        way = get_object_or_404(ways_, pk=way_id, version__figure=figure)
        version = way.version
    else:
        version = queries.newest_version(figure)
        way = queries.colourway_of(version)
    return version, queries.parts_of(version), Palette.of(way)


def turning_context(
    request: Request, figure: Figure, version: Version, parts: Sequence[Part], palette: Palette, way: UUID | None = None
) -> dict[str, Any]:
    """All that a turntable shows, from the gaze that the address asks for."""
    gaze = gaze_in(number_in(request.GET.get("turn", "")), number_in(request.GET.get("tilt", "")))
    fixed, steps = ways(gaze)
    return {
        "figure": figure,
        "board": board(version, parts, palette, gaze),
        "fixed_views": fixed,
        "turns": steps,
        "way": way,
    }


@require_GET
def drawn(request: Request, figure_id: UUID) -> HttpResponse:
    """The drawing alone, felted, from the asked gaze."""
    figure = queries.figure_of(request.studio, figure_id)
    context = turning_context(request, figure, *_looked_at(request, figure))
    return render(request, "figures/turning/_board.html", context)


@require_GET
def turntable(request: Request, figure_id: UUID) -> HttpResponse:
    """The turntable with its keys, for a page that wants it only when it is asked for."""
    figure = queries.figure_of(request.studio, figure_id)
    way = id_in(request.GET.get("way", ""))
    context = turning_context(request, figure, *_looked_at(request, figure), way=way)
    return render(request, "figures/turning/_turntable.html", context)


@require_GET
def mesh(request: Request, figure_id: UUID) -> HttpResponse:
    """The faces that the browser turns, as JSON."""
    figure = queries.figure_of(request.studio, figure_id)
    _, parts, palette = _looked_at(request, figure)
    return JsonResponse(faces(parts, palette))


@require_GET
def sheet(request: Request, figure_id: UUID) -> HttpResponse:
    """Front, side, back and above on one sheet, to one scale."""
    figure = queries.figure_of(request.studio, figure_id)
    version, parts, palette = _looked_at(request, figure)
    pictures = four_views(version, parts, palette)
    return render(request, "figures/turning/four_views.html", {"figure": figure, "pictures": pictures, "parts": parts})
