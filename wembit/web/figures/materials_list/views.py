"""Everything a figure takes, and where its design is from."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.views.decorators.http import require_GET, require_POST

from wembit.core.craft.notions import FITTINGS, MILLIMETRES
from wembit.web.figures import queries
from wembit.web.figures.actions.add_fitting import add_fitting
from wembit.web.figures.actions.drop_fitting import drop_fitting
from wembit.web.figures.actions.tell_origin import tell_origin
from wembit.web.figures.figure_page.page import answer, moved
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.responses import page
from wembit.web.studio.models import MAKER

from .forms import DropForm, FittingForm, OriginForm
from .materials import Batch, listing

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
    listed = listing(version, [Batch(parts, plan_figure(version, parts, palette), 1)], palette)
    words = {
        key: f"{each.words}, {'length' if each.unit == MILLIMETRES else 'pieces'}" for key, each in FITTINGS.items()
    }
    context = {
        **listed,
        "figure": figure,
        "version": version,
        "faults": faults or {},
        "tables": [("Things", listed["things"]), ("Tools, which come back", listed["tools"])],
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
    _, faults = FittingForm(request).tried(
        lambda given: add_fitting(
            request.member,
            figure.pk,
            given["notion"],
            float(given["amount"]),
            size_mm=None if given["size"] is None else float(given["size"]),
            part=given["part"],
            words=given["words"],
        )
    )
    return shown(request, figure, faults)


@require_POST
def unfit(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    _, faults = DropForm(request).tried(lambda given: drop_fitting(request.member, figure.pk, given["fitting"]))
    return shown(request, figure, faults)


@require_POST
def origin(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    _, faults = OriginForm(request).tried(
        lambda given: tell_origin(
            request.member,
            figure.pk,
            kind=given["origin_kind"] or "own",
            sale=given["sale"] or "yes",
            whom=given["whom"],
            credit=given["credit"],
            safety=given["safety"],
        )
    )
    figure.refresh_from_db()
    return answer(request, figure, "", faults) if faults else moved(request, figure)
