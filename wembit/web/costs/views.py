"""What a figure costs; what the shelf is worth and how it is used."""

from __future__ import annotations

from decimal import Decimal
from typing import TYPE_CHECKING

from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.web import numbers
from wembit.web.figures.queries import figure_of
from wembit.web.responses import again
from wembit.web.studio.models import OWNER

from . import figure_cost as costing
from .actions.keep_rates import keep_rates
from .forms import RatesForm
from .worth import shares, use, worth

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request

BREED_PX = 320.0


def shelf_context(request: Request) -> dict:
    studio = request.studio
    year = use(studio)
    rate, mark_up = costing.rates(studio)
    return {
        "worth": worth(studio),
        "use": year,
        "breeds": shares(year.breeds, BREED_PX),
        "breed_px": f"{BREED_PX:.0f}",
        "rate": "" if rate is None else numbers.plain(float(rate), 2, studio.decimal_mark),
        "mark_up": numbers.plain(float(mark_up), 1, studio.decimal_mark),
    }


@require_GET
def shelf(request: Request) -> HttpResponse:
    """What the shelf is worth, the wool of a year, and what the studio asks for its work."""
    return render(request, "costs/shelf.html", shelf_context(request))


@require_POST
def rates(request: Request) -> HttpResponse:
    request.member.must_be(OWNER)
    _, faults = RatesForm(request).tried(
        lambda given: keep_rates(request.member, given["rate"], Decimal(str(given["mark_up"] or 0)))
    )
    if faults:
        return again(request, "costs/shelf.html", shelf_context(request), faults)
    messages.success(request, "Kept.")
    return redirect("costs:home", studio=request.studio.slug)


@require_GET
def figure(request: Request, figure_id: UUID) -> HttpResponse:
    """What a figure costs as planned, and what its makings cost."""
    made = figure_of(request.studio, figure_id)
    costs = costing.made_costs(request.studio, made)
    context = {"figure": made, "cost": costing.figure_cost(made), "made": costs, "middle": costing.middle(costs)}
    return render(request, "costs/figure.html", {**context, "rates": costing.rates(request.studio)})
