"""What runs out when, order lists, deliveries of orders, suppliers."""

from __future__ import annotations

import datetime as dt
import hashlib
from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.http import Http404
from django.shortcuts import get_object_or_404, redirect, render
from django.template.loader import render_to_string
from django.urls import reverse
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.web import clock, numbers
from wembit.web.asked import price_in, whole_number_in
from wembit.web.caches import until_pressed
from wembit.web.decimals import decimal
from wembit.web.errors import Refusal
from wembit.web.idempotency import press_of
from wembit.web.once import once
from wembit.web.responses import again, page, refused, tried
from wembit.web.stash.models import ZERO, Item
from wembit.web.stash.queries import colours, item_chosen, unweighed_lots
from wembit.web.stash.shelf.wool_forms import each_once
from wembit.web.studio.models import MAKER

from . import queries, supplier_bridge
from .actions.put_on_list import put_on_list
from .actions.receive_order import receive_order
from .actions.send_order import send_order
from .actions.take_off_list import take_off_list
from .forms import ArrivalForm, PacksForm, RestForm, SendForm, TogetherForm
from .parcel_box import expected, missing, packs
from .tide_chart import Days, days_of, ruler_of, scales, tide
from .together import together

if TYPE_CHECKING:
    from collections.abc import Mapping, Sequence
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

    from .queries import OrderPage, TideLine

SHOWN = 24  # tide lines at once
MOST_LASTING = 120  # of what lasts


def tide_context(request: Request) -> dict:
    """What stands beside the tray: the tide lines from the asked one on, and in the tray itself lists and parcels."""
    studio, start = request.studio, whole_number_in(request.GET.get("from", "")) or 0
    today = clock.today(studio)
    return {
        "tides": studio.cached_until_change(f"tides:{today}:{start}", lambda: drawn_tides(studio, today, start)),
        "lists": queries.lists(studio),
        "coming": queries.on_the_way(studio),
        "bridge": supplier_bridge.is_there(),
    }


def drawn_tides(studio: Studio, today: dt.date, start: int) -> dict:
    """Some tide lines drawn, by their items, what runs out first; where the weeks begin; how many lie beyond."""
    every = queries.tides_now(studio)
    tides = [tide for tide in every if tide.moves]
    still = [] if start else [tide for tide in every if not tide.moves]
    moving = tides[start : start + SHOWN]
    shown = queries.to_show([*moving, *still[:MOST_LASTING]])
    lasting = {"studio": studio, "lasting": shown[len(moving) :], "all": len(still)}
    changes = {each.date for tide in tides for each in (*tide.demands, *tide.receipts)}
    changes |= {tide.outlook.runs_out for tide in tides if tide.outlook.runs_out}
    days = days_of(today, changes)
    scale = scales(tides, days) if tides else {}
    ruler = ruler_of(scale["g"]) if "g" in scale else None
    return {
        "rows": _drawn(studio, shown[: len(moving)], scale, days),
        "weeks": days.weeks,
        "folds": days.folds,
        "ruler": ruler,
        "next": start + SHOWN,
        "beyond": max(len(tides) - start - SHOWN, 0),
        "lasting": render_to_string("restock/_lasting.html", lasting) if still else "",
        "any": bool(every),
    }


def _drawn(studio: Studio, lines: Sequence[TideLine], scale: Mapping[str, float], days: Days) -> list[tuple[UUID, str]]:
    """Tide lines as markup, by their items; each drawn anew when anything of it, of the days or of the scale is another."""
    among = repr((days, studio.decimal_mark, studio.weight_unit))

    def draw(line: TideLine) -> str:
        context = {"studio": studio, "weeks": days.weeks, "folds": days.folds}
        return render_to_string("restock/_tide.html", {**context, "line": line, "drawn": tide(line, scale, days)})

    def kept(line: TideLine) -> str:
        told = f"{line.look} {scale[line.item.unit]} {among}"
        mark = hashlib.blake2b(told.encode(), digest_size=16).digest()
        return str(until_pressed.get_or_make((studio.pk, f"tide:{line.item.pk}"), mark, lambda: draw(line)))

    return [(line.item.pk, kept(line)) for line in lines]


@require_GET
def home(request: Request) -> HttpResponse:
    """Tide lines, some at once; the next ones come as one scrolls."""
    context = tide_context(request)
    if not request.htmx:
        context |= together_context(request)
    return page(request, "restock/restock.html", "restock/_tides.html", context)


def together_context(request: Request) -> dict:
    """What to order together, for as much as the address allows."""
    most, studio = price_in(request.GET.get("most", "")), request.studio
    if most is not None:
        return {"together": together(studio, most), "most": request.GET.get("most", "")}
    key = f"together:{clock.today(studio)}"
    return {"together": studio.cached_until_change(key, lambda: together(studio)), "most": ""}


@require_POST
@once
def put_together(request: Request) -> HttpResponse:
    """All that one supplier should be asked for now, onto its list."""
    request.member.must_be(MAKER)

    def put(given: dict[str, Any]) -> None:
        rows = together(request.studio, given["most"] or None, given["supplier"])
        put_on_list(request.member, rows[0].packs() if rows else {})

    _, faults = TogetherForm(request).tried(put)
    if faults:
        refused(request, faults)
    else:
        messages.success(request, "On the list.")
    return redirect("restock:home", studio=request.studio.slug)


@require_GET
def item(request: Request, item_id: UUID) -> HttpResponse:
    """One wool's shortage in the tray."""
    item = get_object_or_404(Item.objects.of(request.studio), pk=item_id)
    context = {} if request.htmx else tide_context(request)
    context |= shortage_context(request, item)
    return page(request, "restock/restock.html", "restock/_shortage.html", context)


def shortage_context(request: Request, item: Item, entered: PacksForm | None = None) -> dict:
    """A shortage with its packs: as many of each as were entered, else as are cheapest for what is short."""
    tide = queries.tide_of(request.studio, item.pk)
    wanted = {offer.pk: count for offer, count in tide.packs} if tide.to_order else {}
    if entered:
        packs = [(offer, entered.text_of(offer.pk)) for offer in tide.offers]
    else:
        packs = [(offer, str(wanted.get(offer.pk, ""))) for offer in tide.offers]
    unweighed = unweighed_lots(request.studio, [item.pk]).get(item.pk, []) if tide.outlook.runs_out else []
    return {"tide": tide, "packs": packs, "unweighed": unweighed}


@require_POST
@once
def to_list(request: Request) -> HttpResponse:
    """Packs of offers of an item onto the lists of their suppliers."""
    form = PacksForm(request)
    wanted = item_chosen(request.studio, request.POST.get("item", ""))

    def put(given: dict[str, Any]) -> None:
        on_list = queries.coming_by_item(request.studio, [wanted.pk]) if wanted else {}
        more = on_list[wanted.pk].on_list - decimal(given["shown"] or 0) if wanted and wanted.pk in on_list else ZERO
        if given["shown"] is not None and more > 0:
            amount = " ".join(numbers.amount(more, wanted.unit, request.studio)) if wanted else ""
            raise Refusal(f"{amount} of it were put on the list meanwhile. Press again for more.", "count")
        put_on_list(request.member, form.packs())

    _, faults = form.tried(put)
    if faults:
        if wanted is None:
            raise Http404
        context = tide_context(request) | shortage_context(request, wanted, form)
        return again(request, "restock/restock.html", context, faults)
    messages.success(request, "On the list.")
    return redirect("restock:home", studio=request.studio.slug)


@require_POST
def off_list(request: Request, line_id: UUID) -> HttpResponse:
    take_off_list(request.member, line_id)
    return redirect("restock:home", studio=request.studio.slug)


@require_POST
def send(request: Request, order_id: UUID) -> HttpResponse:
    sent, faults = SendForm(request).tried(lambda given: send_order(request.member, order_id, given["expected"]))
    if faults:
        refused(request, faults)
    else:
        messages.success(request, f"Sent to {sent.supplier.name}.")
    return redirect("restock:home", studio=request.studio.slug)


MEASURES = {"g": "weight", "mm": "length"}


def arrival_context(request: Request, order_page: OrderPage) -> dict:
    studio, there = request.studio, expected(order_page)
    box = packs(there, colours(studio, {each.line.item_id for each in there}))
    rows = [
        {
            "packs": each,
            "line": each.line,
            "measure": MEASURES.get(each.line.item.unit, "count"),
            "pack": numbers.field_amount(each.amount, each.line.item.unit, studio),
            "whole": numbers.field_amount(each.line.pack * row.count, each.line.item.unit, studio),
            "lot": row.dye_lot,
            "count": row.count,
            "amount": f"amount_{index}",
            "dye_lot": f"dye_lot_{index}",
            "drawer": f"drawer_{index}",
            "in_drawer": queries.newest_drawer(each.line.item),
        }
        for index, (row, each) in enumerate(zip(there, box, strict=True))
    ]
    drawings = each_once(each.drawn.drawing for each in box)
    return {"page": order_page, "order": order_page.order, "rows": rows, "drawings": drawings}


@require_http_methods(["GET", "POST"])
def arrival(request: Request, order_id: UUID) -> HttpResponse:
    """Enter the delivery: what came of each line, its dye lot and drawer. A short delivery is entered as it came."""
    order_page = queries.order_of(request.studio, order_id)
    if request.method == "GET":
        return render(request, "restock/arrival.html", arrival_context(request, order_page))
    there, rest = expected(order_page), RestForm(request)
    rows = [ArrivalForm(request, row, each.line.item) for row, each in enumerate(there)]
    faults = {name: words for row in (*rows, rest) for name, words in row.faults.items()}
    if not faults:
        came = [row.parcel(each.line.unit_cost) for row, each in zip(rows, there, strict=True)]
        lacks = missing(
            [(each.line, parcel.amount if parcel else ZERO) for each, parcel in zip(there, came, strict=True)]
        )
        _, faults = tried(
            lambda: receive_order(
                request.member,
                order_page.order.pk,
                [parcel for parcel in came if parcel],
                press=press_of(request),
                missing=lacks if rest.cleaned_data["follows"] else None,
                follows_on=order_page.order.follows_on,
            )
        )
        faults = {("amount_0" if key == "amount" else key): words for key, words in faults.items()}
    if faults:
        return again(request, "restock/arrival.html", arrival_context(request, order_page), faults)
    messages.success(request, f"The parcel of {order_page.order.supplier.name} is on the shelf.")
    return redirect(reverse("restock:home", args=[request.studio.slug]))
