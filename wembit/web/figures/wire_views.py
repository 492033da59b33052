"""The wire in a part, and the templates at true size."""

from __future__ import annotations

from django import forms
from django.http import Http404, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET, require_POST

from wembit.core.craft.armature import PIPE_CLEANER, WIRE
from wembit.core.drawing.templates import PAPERS
from wembit.web.answers import tried
from wembit.web.fields import length_field

from . import printing, queries
from .actions.set_wire import set_wire
from .reading import signed
from .stage import answer, moved

LENGTHS = {
    "gauge_mm": (0.1, 10), "bare_mm": (0, 500), "loop_mm": (0, 500), "back_mm": (0, 2000), "through_mm": (0, 2000),
}  # fmt: skip


@require_POST
def wire(request, figure_id, key):
    found = queries.figure_of(request.studio, figure_id)
    given, told, faults = request.POST, {}, {}
    if "no_wire" not in given:
        for name, (least, most) in LENGTHS.items():
            if given.get(name, "").strip():
                try:
                    told[name] = float(length_field(request.studio, least=least, most=most).clean(given[name]))
                except forms.ValidationError as fault:
                    faults[name] = fault.messages[0]
        twist = signed(given.get("twist", "").strip() or "0")
        if twist is None or not 0 <= twist <= 200:
            faults["twist"] = "Write a number between 0 and 200."
        elif twist:
            told["twist"] = twist / 100
        told["doubled"], told["former"] = "doubled" in given, "former" in given
        told["kind"] = PIPE_CLEANER if given.get("wire_kind") == PIPE_CLEANER else WIRE
    if not faults:
        _, faults = tried(lambda: set_wire(request.member, found.pk, key, told))
    return answer(request, found, key, faults) if faults else moved(request, found, key)


def _sheets(request, figure):
    """The chosen parts on the chosen paper."""
    version = queries.newest_version(figure)
    parts = queries.parts_of(version)
    chosen = request.GET.getlist("part")
    paper = request.GET.get("paper", "A4")
    paper = paper if paper in PAPERS else "A4"
    return printing.sheets(version, parts, chosen, paper, request.studio), parts, chosen, paper


@require_GET
def templates(request, figure_id):
    figure = queries.figure_of(request.studio, figure_id)
    found, parts, chosen, paper = _sheets(request, figure)
    can = [part for part in parts if part.shape["kind"] != "none"]
    context = {
        "figure": figure, "sheets": found, "parts": [(p, not chosen or p.key in chosen) for p in can], "paper": paper,
        "papers": [(name, name) for name in PAPERS], "asked": request.GET.urlencode(),
    }  # fmt: skip
    return render(request, "figures/templates.html", context)


@require_GET
def sheet(request, figure_id, number):
    """One sheet as an SVG file of its true size."""
    figure = queries.figure_of(request.studio, figure_id)
    found = _sheets(request, figure)[0]
    if not 1 <= number <= len(found):
        raise Http404
    context = {"sheet": found[number - 1], "figure": figure, "file": True}
    response = render(request, "figures/sheet.svg", context, content_type="image/svg+xml")
    response["Content-Disposition"] = f'attachment; filename="{printing.file_name(figure)}-{number}.svg"'
    return response


@require_GET
def pdf(request, figure_id):
    """All sheets as one PDF, at their true size."""
    figure = queries.figure_of(request.studio, figure_id)
    found = _sheets(request, figure)[0]
    response = HttpResponse(printing.pdf(found, figure.name), content_type="application/pdf")
    response["Content-Disposition"] = f'attachment; filename="{printing.file_name(figure)}.pdf"'
    return response
