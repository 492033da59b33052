"""Figures out as files and in from files."""

from __future__ import annotations

import json
from typing import TYPE_CHECKING

from django.http import HttpResponse, JsonResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from wembit.web.figures import queries
from wembit.web.figures.drawing.layout import pictures
from wembit.web.figures.print_templates.sheets import file_name
from wembit.web.figures.to_core.estimating import Palette

from .figure_file import figure_as_json, schema

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.request import Request


@require_GET
def as_json(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    text = json.dumps(figure_as_json(figure), indent=1, ensure_ascii=False)
    response = HttpResponse(text, content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="{file_name(figure)}.json"'
    return response


@require_GET
def as_svg(request: Request, figure_id: UUID) -> HttpResponse:
    """The figure from the side at its true size."""
    figure = queries.figure_of(request.studio, figure_id)
    version = queries.newest_version(figure)
    side = pictures(version, queries.parts_of(version), Palette.of(queries.colourway_of(version)))["side"]
    response = render(
        request, "figures/files/drawing.svg", {"figure": figure, "view": side}, content_type="image/svg+xml"
    )
    response["Content-Disposition"] = f'attachment; filename="{file_name(figure)}.svg"'
    return response


@require_GET
def file_schema(request: Request) -> HttpResponse:
    return JsonResponse(schema())
