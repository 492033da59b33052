"""How bags come to the shelf: the first stocktake, a parcel without an order."""

from __future__ import annotations

from decimal import Decimal
from typing import TYPE_CHECKING

from django.contrib import messages
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_http_methods

from wembit.core.craft.materials import NOTIONS
from wembit.web.idempotency import press_of
from wembit.web.responses import again, tried
from wembit.web.stash import queries
from wembit.web.stash.actions.lay_in import lay_in
from wembit.web.stash.actions.receive import receive
from wembit.web.stash.shelf.forms import FORM_CHOICES
from wembit.web.stash.shelf.shelf_chart import draw
from wembit.web.stash.shelf.wool_forms import drawings
from wembit.web.uploads import cleaned

from .forms import BagForm, ParcelForm
from .goods import goods_options

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request

RECEIVE_ROWS = 4
CARRIED = ("kind", "breed", "form", "notion", "drawer")  # what the next line of the stocktake begins with


def stocktake_context(request: Request) -> dict:
    last = queries.last_laid_in(request.studio)
    for each in last:
        each.promised = Decimal(0)
    return {
        "breeds": queries.breed_choices(request.studio),
        "forms": FORM_CHOICES,
        "notions": list(NOTIONS.items()),
        "last": [draw(each, 14.0) for each in last],
        "laid": queries.shelf_line(request.studio)[1],
        "drawings": drawings().values(),
        "names": queries.item_names(request.studio),
        "drawers": queries.drawers(request.studio),
        "carry": request.session.get("stocktake", {}),
    }


@require_http_methods(["GET", "POST"])
def stocktake(request: Request) -> HttpResponse:
    """One line a bag: lay it on the scale, form, colour, next."""
    if request.method == "GET":
        return render(request, "stash/intake/stocktake.html", stocktake_context(request))
    form = BagForm(request)
    _, faults = form.tried(
        lambda given: lay_in(
            request.member,
            form.item(),
            given["amount"],
            press=press_of(request),
            srgb=given["srgb"] if given["has_colour"] else "",
            drawer=given["drawer"],
            dye_lot=given["dye_lot"],
            photo=cleaned(request.FILES.get("photo"), request.studio),
        )
    )
    if faults:
        return again(request, "stash/intake/stocktake.html", stocktake_context(request), faults)
    request.session["stocktake"] = {key: form.cleaned_data[key] for key in CARRIED}
    return redirect("stash:stocktake", studio=request.studio.slug)


def delivery_context(request: Request) -> dict:
    lists = "lists" in request.GET
    chosen = lists or request.method == "POST"  # else the fields are empty, and all share one list
    return {
        "goods": goods_options(request.studio),
        "items": queries.goods(request.studio) if chosen else [],
        "rows": range(RECEIVE_ROWS),
        "lists": lists,
    }


@require_http_methods(["GET", "POST"])
def delivery(request: Request) -> HttpResponse:
    """A parcel without an order: what came of which item, with its dye lot."""
    if request.method == "GET":
        return render(request, "stash/intake/delivery.html", delivery_context(request))
    rows = [row for n in range(RECEIVE_ROWS) if not (row := ParcelForm(request, n)).is_empty()]
    faults = {name: words for row in rows for name, words in row.faults.items()}
    if not faults:
        parcels = [row.parcel() for row in rows]
        _, faults = tried(lambda: receive(request.member, parcels, press=press_of(request)))
        faults = {("amount_0" if key == "amount" else key): words for key, words in faults.items()}
    if faults:
        return again(request, "stash/intake/delivery.html", delivery_context(request), faults)
    messages.success(request, "On the shelf.")
    return redirect(reverse("stash:home", args=[request.studio.slug]))
