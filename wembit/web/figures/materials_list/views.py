"""Everything a figure takes, and where its design is from."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django import forms
from django.views.decorators.http import require_GET, require_POST

from wembit.core.craft.notions import FITTINGS, MILLIMETRES
from wembit.web.fields import MeasureField, length_field
from wembit.web.figures import queries
from wembit.web.figures.actions.add_fitting import add_fitting
from wembit.web.figures.actions.drop_fitting import drop_fitting
from wembit.web.figures.actions.tell_origin import tell_origin
from wembit.web.figures.figure_page.page import answer, moved
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.responses import page, tried
from wembit.web.studio.models import MAKER

from .materials import listing

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.figures.models import Figure
    from wembit.web.request import Request


def shown(request: Request, figure: Figure, faults: dict | None = None) -> HttpResponse:
    version = queries.newest_version(figure)
    parts = queries.parts_of(version)
    palette = Palette.of(queries.colourway_of(version))
    version.figure = figure
    found = listing(version, parts, plan_figure(version, parts, palette), palette)
    words = {
        key: f"{each.words}, {'length' if each.unit == MILLIMETRES else 'pieces'}" for key, each in FITTINGS.items()
    }
    context = {
        **found,
        "figure": figure,
        "version": version,
        "faults": faults or {},
        "tables": [("Things", found["things"]), ("Tools, which come back", found["tools"])],
        "fittings": list(words.items()),
        "on_parts": [(part.key, part.name) for part in parts],
    }
    if faults:
        context["kept"] = request.POST
    return page(
        request,
        "figures/materials_list/list.html",
        "figures/materials_list/_list.html",
        context,
        422 if faults else 200,
    )


@require_GET
def everything(request: Request, figure_id: UUID) -> HttpResponse:
    return shown(request, queries.figure_of(request.studio, figure_id))


@require_POST
def fit(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    request.member.must_be(MAKER)
    given, faults = request.POST, {}
    fitting = FITTINGS.get(given.get("notion", ""))
    amount = size = None
    try:
        lengthy = fitting is not None and fitting.unit == MILLIMETRES
        field = (
            length_field(request.studio, least=1)
            if lengthy
            else MeasureField(measure="count", unit="", least=1, most=1000)
        )
        amount = float(field.clean(given.get("amount", "")))
    except forms.ValidationError as fault:
        faults["amount"] = fault.messages[0]
    if given.get("size", "").strip():
        try:
            size = float(length_field(request.studio, least=0.1, most=500).clean(given["size"]))
        except forms.ValidationError as fault:
            faults["size"] = fault.messages[0]
    if amount is not None and not faults:
        _, faults = tried(
            lambda: add_fitting(
                request.member, figure.pk, given.get("notion", ""), amount, size_mm=size, part=given.get("part", ""),
                words=given.get("words", ""),
            )
        )  # fmt: skip
    return shown(request, figure, faults)


@require_POST
def unfit(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    drop_fitting(request.member, figure.pk, request.POST.get("fitting", ""))
    return shown(request, figure)


@require_POST
def origin(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    given = request.POST
    _, faults = tried(
        lambda: tell_origin(
            request.member, figure.pk, kind=given.get("origin_kind", "own"), sale=given.get("sale", "yes"),
            whom=given.get("whom", ""), credit=given.get("credit", ""), safety=given.get("safety", ""),
        )
    )  # fmt: skip
    figure.refresh_from_db()
    return answer(request, figure, "", faults) if faults else moved(request, figure)
