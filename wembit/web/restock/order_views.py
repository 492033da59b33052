"""An order as a document, sent as a file, and asked after."""

from __future__ import annotations

import json
from typing import TYPE_CHECKING

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.web.errors import Refusal
from wembit.web.responses import refused, tried
from wembit.web.studio.models import MAKER

from . import order_document, supplier_bridge
from .actions.hear_of_order import hear_of_order
from .actions.send_order import send_order
from .actions.wish_one_lot import wish_one_lot
from .forms import WishForm
from .models import DRAFT, Order
from .queries import order_of

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.request import Request

    from .queries import OrderPage


@require_GET
def order(request: Request, order_id: UUID) -> HttpResponse:
    """The order as a page, to read and to print."""
    page = order_of(request.studio, order_id)
    return render(
        request, "restock/order.html", {"page": page, "order": page.order, "bridge": supplier_bridge.is_there()}
    )


def _as_file(page: OrderPage, kind: str, content: str | bytes, ending: str) -> HttpResponse:
    answer = HttpResponse(content, content_type=kind)
    answer["Content-Disposition"] = f'attachment; filename="order-{page.order.number}.{ending}"'
    return answer


@require_GET
def order_csv(request: Request, order_id: UUID) -> HttpResponse:
    page = order_of(request.studio, order_id)
    return _as_file(page, "text/csv; charset=utf-8", order_document.table(page, request.studio), "csv")


@require_GET
def order_json(request: Request, order_id: UUID) -> HttpResponse:
    page = order_of(request.studio, order_id)
    return _as_file(page, "application/json", json.dumps(order_document.order_file(page), indent=2), "json")


@require_GET
def order_pdf(request: Request, order_id: UUID) -> HttpResponse:
    page = order_of(request.studio, order_id)
    return _as_file(page, "application/pdf", order_document.paper(page, request.studio), "pdf")


def _to(page: OrderPage) -> Order:
    """The order, where its supplier takes files. Raises `Refusal`."""
    if not (supplier_bridge.is_there() and page.order.supplier.takes_files):
        raise Refusal(f"{page.order.supplier.name} takes no order files. Send the list yourself, and say so.")
    if page.order.rest_of_id:
        raise Refusal("The rest of an order has no number of its own there. It follows on the day that was named.")
    return page.order


@require_POST
def place(request: Request, order_id: UUID) -> HttpResponse:
    """Send a list as a file, outside of any transaction, since an answer may take its time; twice is one order."""
    request.member.must_be(MAKER)
    page = order_of(request.studio, order_id)

    def send() -> Order:
        if _to(page).state != DRAFT:
            raise Refusal("That list was sent already.")
        answer = supplier_bridge.place(order_document.order_file(page))
        return send_order(request.member, order_id, answer=answer)

    sent, faults = tried(send)
    if faults:
        refused(request, faults)
    else:
        messages.success(request, f"{sent.supplier.name} has it and sends it for {sent.expected_on:%-d %B}.")
    return redirect("restock:home", studio=request.studio.slug)


@require_POST
def ask(request: Request, order_id: UUID) -> HttpResponse:
    """Ask the supplier how an order stands."""
    request.member.must_be(MAKER)
    page = order_of(request.studio, order_id)
    heard, faults = tried(lambda: hear_of_order(request.member, order_id, supplier_bridge.ask(_to(page).number)))
    if faults:
        refused(request, faults)
        return redirect("restock:home", studio=request.studio.slug)
    if heard.note["state"] == supplier_bridge.DELIVERED:
        return redirect("restock:arrival", studio=request.studio.slug, order_id=order_id)
    words = "It is late" if heard.note["state"] == supplier_bridge.DELAYED else "It is on its way"
    messages.success(request, f"{words}: {heard.expected_on:%-d %B}.")
    return redirect("restock:home", studio=request.studio.slug)


@require_POST
def wish(request: Request, order_id: UUID) -> HttpResponse:
    """Each colour of one dye lot, or as it comes."""
    _, faults = WishForm(request).tried(lambda given: wish_one_lot(request.member, order_id, wished=given["wished"]))
    if faults:
        refused(request, faults)
    return redirect("restock:home", studio=request.studio.slug)
