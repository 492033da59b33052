"""How planned met taken: what the studio has learnt, and what each figure's makings took."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.http import HttpResponse
from django.shortcuts import render
from django.utils.text import slugify
from django.views.decorators.http import require_GET

from wembit.core.tables import write_table
from wembit.web import clock
from wembit.web.figures.queries import figure_of
from wembit.web.stash.queries import names_of
from wembit.web.studio.models import Member

from .learnt_blends import learnt_blends
from .learnt_chart import HIGH, WIDE, along, learnt_rows, part_rows
from .queries import makings_of_figure
from .records import Record, loose_costs, minutes_of, records

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.request import Request

COLUMNS = ("made", "maker", "part", "wool", "slot", "planned_g", "p10_g", "p90_g", "taken_g")


@require_GET
def learnt(request: Request) -> HttpResponse:
    """What the studio's own work has taught."""
    found = records(request.studio)
    minutes = [ratio for _, ratio in minutes_of(request.studio)]
    rows = learnt_rows(request.studio, found, Member.objects.of(request.studio).select_related("user"), minutes)
    held = sum(record.held for record in found)
    context = {
        "rows": rows,
        "of": len(found),
        "held": held,
        "wide": WIDE,
        "high": HIGH,
        "as_planned": HIGH / 2,
        "blends": learnt_blends(request.studio),
        "loose": loose_costs(request.studio),
    }
    return render(request, "bench/learnt.html", context)


@require_GET
def made(request: Request, figure_id: UUID) -> HttpResponse:
    """What each making of a figure took, part by part and wool by wool."""
    figure, found = _records_of(request, figure_id)
    rows = part_rows(found, _wools(found))
    makings = len({record.making for record in found})
    context = {"figure": figure, "rows": rows, "makings": makings, "wide": WIDE, "as_planned": along(1.0, WIDE)}
    return render(request, "bench/made.html", context)


@require_GET
def made_csv(request: Request, figure_id: UUID) -> HttpResponse:
    """The same as a table: grams with a point, a line a layer of a part of a making."""
    figure, found = _records_of(request, figure_id)
    wools, makers = (
        _wools(found),
        {each.pk: str(each) for each in Member.objects.of(request.studio).select_related("user")},
    )
    rows = []
    for each in found:
        day = each.finished_at.astimezone(clock.zone(request.studio)).date().isoformat()
        ends = (f"{grams:.3f}" for grams in (each.grams.p50, each.grams.p10, each.grams.p90))
        rows.append([day, makers[each.maker], each.part, wools[each.item], each.slot, *ends, f"{each.taken:.3f}"])
    answer = HttpResponse(write_table(COLUMNS, rows), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{slugify(figure.name) or "figure"}-made.csv"'
    return answer


def _records_of(request: Request, figure_id: UUID) -> tuple:
    figure = figure_of(request.studio, figure_id)
    return figure, records(request.studio, makings_of_figure(figure))


def _wools(found: list[Record]) -> dict[UUID, str]:
    """The name of each item that the records are of."""
    return names_of({record.item for record in found})
