"""A fibre: its bags, its use over time, what is known and what the scale has learnt of it; and the table of breeds."""

from __future__ import annotations

from decimal import Decimal
from typing import TYPE_CHECKING

from django import forms
from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.core.craft.materials import BREEDS, CRIMPS, FELTING, FORMS, TOUCHES, USES
from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.fields import weight_field
from wembit.web.responses import again, tried
from wembit.web.stash import queries
from wembit.web.stash.actions.describe_item import describe_item
from wembit.web.stash.actions.keep_breed import keep_breed
from wembit.web.stash.models import Item, OwnBreed
from wembit.web.stash.shelf.shelf_chart import draw, months_chart
from wembit.web.stash.shelf.wool_forms import drawings
from wembit.web.studio.models import MAKER

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request

LAID_CM = Decimal(20)  # of a strand on the scale
PINCHES = Decimal(10)


def fibre_context(request: Request, item: Item) -> dict:
    lots = queries.bags_of(item)
    item = queries.with_stock([item])[0]
    return {
        "item": item,
        "lots": [draw(lot) for lot in lots],
        "form": FORMS[item.form],
        "source": item.source,
        "cm20_g": item.linear_g_m and item.linear_g_m * LAID_CM / 100,
        "own_breeds": [(each.pk, each.name) for each in queries.own_breeds(request.studio)],
        "chart": months_chart(queries.used_by_month(item, clock.today(request.studio))),
        "drawings": drawings().values(),
    }


@require_GET
def fibre(request: Request, item_id: UUID) -> HttpResponse:
    return render(request, "stash/fibres/fibre.html", fibre_context(request, queries.fibre_of(request.studio, item_id)))


@require_POST
def learn(request: Request, item_id: UUID) -> HttpResponse:
    """What the scale shows of it (20 cm, a palm, ten pinches), its breed where it is one of the studio's own, and a note."""
    request.member.must_be(MAKER)
    item, said, faults = queries.fibre_of(request.studio, item_id), {}, {}
    for name, field in (("cm20", "linear_g_m"), ("palm", "palm_g"), ("pinches", "pinch_g")):
        if name not in request.POST:
            continue
        try:
            weight = weight_field(request.member, required=False, least=0.001, most=10_000).clean(request.POST[name])
        except forms.ValidationError as fault:
            faults[name] = fault.messages[0]
            continue
        said[field] = weight and {"cm20": weight * 100 / LAID_CM, "palm": weight, "pinches": weight / PINCHES}[name]
    if "note" in request.POST:
        said["note"] = request.POST["note"].replace("\0", "")[:2000]
    if "own_breed" in request.POST:
        try:
            chosen = forms.UUIDField(required=False).clean(request.POST["own_breed"])
            said["own_breed"] = chosen and queries.own_breed(request.studio, chosen)
        except (forms.ValidationError, Http404):
            faults["own_breed"] = "Choose a breed of the list."
    if not faults:
        _, faults = tried(lambda: describe_item(request.member, item.pk, **said))
    if faults:
        return again(request, "stash/fibres/fibre.html", fibre_context(request, item), faults)
    messages.success(request, "Learnt.")
    return redirect("stash:fibre", studio=request.studio.slug, item_id=item.pk)


def breeds_context(request: Request) -> dict:
    own = queries.own_breeds(request.studio)
    return {
        "rows": [*((each.as_breed(), True) for each in own), *((each, False) for each in BREEDS.values())],
        "forms": FORMS.values(),
        "crimps": [(each, each) for each in CRIMPS],
        "feltings": [(each, each) for each in FELTING],
        "touches": [(each, each) for each in TOUCHES],
        "uses": USES,
        "chosen_uses": request.POST.getlist("uses"),
    }


@require_http_methods(["GET", "POST"])
def breeds(request: Request) -> HttpResponse:
    """The table of breeds, the studio's own first; and another one of its own."""
    if request.method == "GET":
        return render(request, "stash/fibres/breeds.html", breeds_context(request))
    request.member.must_be(MAKER)
    _, faults = tried(lambda: _kept(request))
    if faults:
        return again(request, "stash/fibres/breeds.html", breeds_context(request), faults)
    messages.success(request, "Kept. It can be chosen wherever a breed is.")
    return redirect("stash:breeds", studio=request.studio.slug)


def _kept(request: Request) -> OwnBreed:
    given = request.POST
    try:
        micron = forms.FloatField(min_value=5, max_value=200).clean(given.get("micron_um", "").replace(",", "."))
    except forms.ValidationError:
        raise Refusal("Write the diameter of its fibres in µm: 5 to 200, as on the label.", "micron_um") from None
    try:
        staple = forms.FloatField(min_value=1, max_value=1000, required=False).clean(
            given.get("staple_mm", "").replace(",", ".")
        )
    except forms.ValidationError:
        raise Refusal("Write the length of its locks in mm, or leave it empty.", "staple_mm") from None
    return keep_breed(
        request.member,
        given.get("breed_name", ""),
        micron,
        staple,
        crimp=given.get("crimp", ""),
        felting=given.get("felting", ""),
        touch=given.get("touch", ""),
        uses=given.getlist("uses"),
    )
