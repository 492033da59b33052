"""How planned met taken: what the studio has learnt, and what each figure's makings took."""

from __future__ import annotations

import csv
from typing import TYPE_CHECKING

from django.http import HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from wembit.web import clock
from wembit.web.figures.queries import figure_of
from wembit.web.stash.models import Item
from wembit.web.studio.models import Member

from .learning import minutes_of
from .learnt_chart import HIGH, WIDE, along, learnt_rows, part_rows
from .models import Making
from .records import Record, records

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
    context = {"rows": rows, "of": len(found), "held": held, "wide": WIDE, "high": HIGH, "as_planned": HIGH / 2}
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
    answer = HttpResponse(content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{figure.pk}-made.csv"'
    wools, makers = (
        _wools(found),
        {each.pk: str(each) for each in Member.objects.of(request.studio).select_related("user")},
    )
    table = csv.writer(answer, lineterminator="\n")
    table.writerow(COLUMNS)
    for each in found:
        day = each.finished_at.astimezone(clock.zone(request.studio)).date().isoformat()
        ends = (f"{grams:.3f}" for grams in (each.grams.p50, each.grams.p10, each.grams.p90))
        table.writerow([day, makers[each.maker], each.part, wools[each.item], each.slot, *ends, f"{each.taken:.3f}"])
    return answer


def _records_of(request: Request, figure_id: UUID) -> tuple:
    figure = figure_of(request.studio, figure_id)
    makings = Making.objects.of(request.studio).filter(colourway__version__figure=figure)
    return figure, records(request.studio, list(makings.values_list("pk", flat=True)))


def _wools(found: list[Record]) -> dict[UUID, str]:
    """The name of each item that the records are of."""
    return dict(Item.objects.filter(pk__in={record.item for record in found}).values_list("pk", "name"))
