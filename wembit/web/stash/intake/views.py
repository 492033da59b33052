"""How bags come to the shelf: the first stocktake, a parcel without an order."""

from __future__ import annotations

from decimal import Decimal
from typing import TYPE_CHECKING

from django import forms
from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_http_methods

from wembit.core.craft.materials import NOTIONS
from wembit.web.fields import amount_field, length_field
from wembit.web.idempotency import press_of
from wembit.web.responses import again, faults_of, tried
from wembit.web.stash import queries
from wembit.web.stash.actions.lay_in import lay_in
from wembit.web.stash.actions.receive import Parcel, receive
from wembit.web.stash.models import FIBRE, GRAMS, MILLIMETRES, NOTION, PIECES, Item
from wembit.web.stash.shelf.shelf_chart import draw
from wembit.web.stash.shelf.views import FORM_CHOICES
from wembit.web.stash.shelf.wool_forms import drawings
from wembit.web.uploads import cleaned

if TYPE_CHECKING:
    from typing import Any

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

NOTION_UNITS = {"wire": MILLIMETRES, "thread": MILLIMETRES}
RECEIVE_ROWS = 4


class BagForm(forms.Form):
    """One line of the stocktake: a fibre, or a notion."""

    kind = forms.ChoiceField(choices=[(FIBRE, FIBRE), (NOTION, NOTION)], required=False)
    name = forms.CharField(max_length=80, required=False)
    breed = forms.ChoiceField(required=False)
    form = forms.ChoiceField(choices=FORM_CHOICES, required=False)
    notion = forms.ChoiceField(choices=list(NOTIONS.items()), required=False)
    srgb = forms.RegexField("^#[0-9a-fA-F]{6}$", required=False)
    drawer = forms.CharField(max_length=40, required=False)
    dye_lot = forms.CharField(max_length=40, required=False)

    def __init__(self, given: Any, studio: Studio) -> None:
        super().__init__(given)
        self.fields["breed"] = forms.ChoiceField(required=False, choices=queries.breed_choices(studio))


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
    form = BagForm(request.POST, request.studio)
    faults = {} if form.is_valid() else faults_of(form)
    kind = request.POST.get("kind") or FIBRE
    unit = GRAMS if kind == FIBRE else NOTION_UNITS.get(request.POST.get("notion", ""), PIECES)
    amount = size = None
    try:
        amount = amount_field(request.member, unit, required=False).clean(request.POST.get("amount", ""))
        size = length_field(request.studio, required=False, most=1000).clean(request.POST.get("size", ""))
    except forms.ValidationError as fault:
        faults["amount"] = fault.messages[0]
    if not faults and kind == FIBRE and not form.cleaned_data["form"]:
        faults["form"] = "Choose what it is: tops, batt, locks…"
    if not faults and kind == NOTION and not form.cleaned_data["notion"]:
        faults["notion"] = "Choose what it is: eyes, wire, thread…"
    if not faults:
        given = form.cleaned_data

        def do() -> Any:
            item = {"kind": kind, "name": given["name"], "unit": unit}
            if kind == FIBRE:
                item |= {**queries.breed_fields(given["breed"] or queries.UNKNOWN), "form": given["form"]}
            else:
                item |= {"notion": given["notion"], "size_mm": size}
            return lay_in(
                request.member,
                item,
                amount,
                press=press_of(request),
                srgb=given["srgb"] if request.POST.get("has_colour") else "",
                drawer=given["drawer"],
                dye_lot=given["dye_lot"],
                photo=cleaned(request.FILES.get("photo"), request.studio),
            )

        _, faults = tried(do)
    if faults:
        return again(request, "stash/intake/stocktake.html", stocktake_context(request), faults)
    carried = {key: request.POST.get(key, "") for key in ("kind", "breed", "form", "notion", "drawer")}
    request.session["stocktake"] = carried
    return redirect("stash:stocktake", studio=request.studio.slug)


def delivery_context(request: Request) -> dict:
    return {"items": [(each.pk, f"{each.name}, {each.what}") for each in queries.items(request.studio)],
            "rows": range(RECEIVE_ROWS)}  # fmt: skip


@require_http_methods(["GET", "POST"])
def delivery(request: Request) -> HttpResponse:
    """A parcel without an order: what came of which item, with its dye lot."""
    if request.method == "GET":
        return render(request, "stash/intake/delivery.html", delivery_context(request))
    parcels, faults = [], {}
    for row in range(RECEIVE_ROWS):
        chosen, text = request.POST.get(f"item_{row}", ""), request.POST.get(f"amount_{row}", "")
        if not chosen and not text.strip():
            continue
        try:
            item = get_object_or_404(Item.objects.of(request.studio), pk=forms.UUIDField().clean(chosen))
            amount = amount_field(request.member, item.unit).clean(text)
        except forms.ValidationError as fault:
            faults[f"amount_{row}"] = fault.messages[0] if chosen else "Choose what came."
            continue
        parcels.append(
            Parcel(item.pk, amount, request.POST.get(f"dye_lot_{row}", "")[:40], request.POST.get(f"drawer_{row}", ""))
        )
    if not faults:
        _, faults = tried(lambda: receive(request.member, parcels, press=press_of(request)))
        faults = {("amount_0" if key == "amount" else key): words for key, words in faults.items()}
    if faults:
        return again(request, "stash/intake/delivery.html", delivery_context(request), faults)
    messages.success(request, "On the shelf.")
    return redirect(reverse("stash:home", args=[request.studio.slug]))
