"""Suppliers: who sells what in which packs at which price."""

from __future__ import annotations

from itertools import zip_longest
from typing import TYPE_CHECKING, Any

from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from wembit.web import numbers
from wembit.web.once import once
from wembit.web.responses import again
from wembit.web.stash.queries import colours, goods

from . import queries, supplier_bridge
from .actions.keep_offer import drop_offer, keep_offer
from .actions.keep_supplier import keep_supplier
from .forms import BREAKS, OfferForm, SupplierForm
from .packs_chart import by_item

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

    from .models import Supplier


def suppliers_context(request: Request, chosen: str = "") -> dict:
    """The suppliers; the chosen one's forms in the tray."""
    found = queries.suppliers(request.studio)
    seen = colours(request.studio, {offer.item_id for supplier in found for offer in supplier.offers.all()})
    for supplier in found:
        supplier.rows = by_item(supplier.offers.all(), seen)
    bridge = supplier_bridge.is_there()
    in_hand = next((each for each in found if str(each.pk) == chosen), None)
    return {
        "suppliers": found,
        "chosen": in_hand,
        "items": goods(request.studio) if in_hand else [],
        "bridge": bridge,
        **_offer_in_hand(request.studio, in_hand, request.GET.get("offer", "")),
    }


def _offer_in_hand(studio: Studio, supplier: Supplier | None, chosen: str) -> dict:
    """The supplier's offer that was picked, and its price breaks in as many rows as the form has."""
    offers = supplier.offers.all() if supplier else []
    offer = next((each for each in offers if str(each.pk) == chosen), None)
    breaks = offer.breaks if offer else []
    rows = zip_longest(BREAKS, breaks[: len(BREAKS)])
    return {
        "offer": offer,
        "pack": numbers.field_amount(offer.pack, offer.item.unit, studio) if offer else "",
        "breaks": [(f"from_{row}", f"each_{row}", *(each or ("", None))) for row, each in rows],
    }


@require_GET
def suppliers(request: Request) -> HttpResponse:
    return render(request, "restock/suppliers.html", suppliers_context(request, request.GET.get("supplier", "")))


def to_supplier(request: Request, supplier_id: UUID) -> HttpResponse:
    """Back to the suppliers with this one chosen."""
    return redirect(f"{reverse('restock:suppliers', args=[request.studio.slug])}?supplier={supplier_id}")


def suppliers_again(request: Request, supplier_id: UUID | None, faults: dict) -> HttpResponse:
    return again(request, "restock/suppliers.html", suppliers_context(request, str(supplier_id)), faults)


@require_POST
@once
def supplier(request: Request, supplier_id: UUID | None = None) -> HttpResponse:
    kept, faults = SupplierForm(request).tried(
        lambda given: keep_supplier(
            request.member,
            name=given["name"],
            lead_days=given["lead_days"],
            postage=given["postage"],
            minimum=given["minimum"],
            takes_files=given["takes_files"],
            supplier_id=supplier_id,
        )
    )
    return suppliers_again(request, supplier_id, faults) if faults else to_supplier(request, kept.pk)


@require_POST
def not_sold(request: Request, offer_id: UUID) -> HttpResponse:
    """A pack that is not sold any more."""
    return to_supplier(request, drop_offer(request.member, offer_id))


@require_POST
def offer(request: Request, supplier_id: UUID) -> HttpResponse:
    form = OfferForm(request)

    def keep(given: dict[str, Any]) -> None:
        assert form.item is not None, "a form without an item is not valid"
        keep_offer(
            request.member, supplier_id, form.item.pk, given["pack"], given["price"], form.breaks, given["picked"]
        )

    _, faults = form.tried(keep)
    return suppliers_again(request, supplier_id, faults) if faults else to_supplier(request, supplier_id)
