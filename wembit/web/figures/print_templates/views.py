"""The templates of a figure at true size, on sheets."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.http import Http404, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from wembit.core.drawing.templates import PAPERS
from wembit.web.figures import queries

from . import sheets

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.figures.models import Figure
    from wembit.web.request import Request


def _sheets(request: Request, figure: Figure) -> Any:
    """The chosen parts on the chosen paper."""
    version = queries.newest_version(figure)
    parts = queries.parts_of(version)
    chosen = request.GET.getlist("part")
    paper = request.GET.get("paper", "A4")
    paper = paper if paper in PAPERS else "A4"
    return sheets.sheets(version, parts, chosen, paper, request.studio), parts, chosen, paper


@require_GET
def templates(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    pages, parts, chosen, paper = _sheets(request, figure)
    can = [part for part in parts if part.shape["kind"] != "none"]
    context = {
        "figure": figure, "sheets": pages, "parts": [(p, not chosen or p.key in chosen) for p in can], "paper": paper,
        "papers": [(name, name) for name in PAPERS], "asked": request.GET.urlencode(),
    }  # fmt: skip
    return render(request, "figures/print_templates/templates.html", context)


@require_GET
def sheet(request: Request, figure_id: UUID, number: Any) -> HttpResponse:
    """One sheet as an SVG file of its true size."""
    figure = queries.figure_of(request.studio, figure_id)
    pages = _sheets(request, figure)[0]
    if not 1 <= number <= len(pages):
        raise Http404
    context = {"sheet": pages[number - 1], "figure": figure, "file": True}
    response = render(request, "figures/print_templates/sheet.svg", context, content_type="image/svg+xml")
    response["Content-Disposition"] = f'attachment; filename="{sheets.file_name(figure)}-{number}.svg"'
    return response


@require_GET
def pdf(request: Request, figure_id: UUID) -> HttpResponse:
    """All sheets as one PDF, at their true size."""
    figure = queries.figure_of(request.studio, figure_id)
    pages = _sheets(request, figure)[0]
    response = HttpResponse(sheets.pdf(pages, figure.name), content_type="application/pdf")
    response["Content-Disposition"] = f'attachment; filename="{sheets.file_name(figure)}.pdf"'
    return response
