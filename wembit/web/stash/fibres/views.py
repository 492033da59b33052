"""A fibre: its bags, its use over time, what is known and what the scale has learnt of it; and the table of breeds."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.core.craft.materials import BREEDS, CRIMPS, FELTING, FORMS, TOUCHES, USES
from wembit.web import clock
from wembit.web.responses import again
from wembit.web.stash import queries
from wembit.web.stash.actions.describe_item import describe_item
from wembit.web.stash.actions.keep_breed import keep_breed
from wembit.web.stash.models import Item
from wembit.web.stash.shelf.shelf_chart import draw, months_chart
from wembit.web.stash.shelf.wool_forms import drawings
from wembit.web.studio.models import MAKER

from .forms import LAID_CM, BreedForm, LearnForm

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


def fibre_context(request: Request, item: Item) -> dict:
    lots = queries.bags_of(item)
    item = queries.with_stock([item])[0]
    return {
        "item": item,
        "lots": [draw(lot) for lot in lots],
        "form": FORMS[item.form],
        "source": item.source,
        "cm20_g": item.linear_g_m and item.linear_g_m * LAID_CM / 100,
        "own_breeds": [(breed.pk, breed.name) for breed in queries.own_breeds(request.studio)],
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
    item, form = queries.fibre_of(request.studio, item_id), LearnForm(request)
    _, faults = form.tried(lambda _: describe_item(request.member, item.pk, **form.told()))
    if faults:
        return again(request, "stash/fibres/fibre.html", fibre_context(request, item), faults)
    messages.success(request, "Learnt.")
    return redirect("stash:fibre", studio=request.studio.slug, item_id=item.pk)


def breeds_context(request: Request) -> dict:
    own = queries.own_breeds(request.studio)
    return {
        "rows": [*((breed.as_breed(), True) for breed in own), *((breed, False) for breed in BREEDS.values())],
        "forms": FORMS.values(),
        "crimps": [(crimp, crimp) for crimp in CRIMPS],
        "feltings": [(felting, felting) for felting in FELTING],
        "touches": [(touch, touch) for touch in TOUCHES],
        "uses": USES,
    }


@require_http_methods(["GET", "POST"])
def breeds(request: Request) -> HttpResponse:
    """The table of breeds, the studio's own first; and another one of its own."""
    if request.method == "GET":
        return render(request, "stash/fibres/breeds.html", breeds_context(request))
    request.member.must_be(MAKER)
    _, faults = BreedForm(request).tried(
        lambda given: keep_breed(
            request.member,
            given["breed_name"],
            given["micron_um"],
            given["staple_mm"],
            crimp=given["crimp"],
            felting=given["felting"],
            touch=given["touch"],
            uses=given["uses"],
        )
    )
    if faults:
        context = breeds_context(request) | {"chosen_uses": request.POST.getlist("uses")}
        return again(request, "stash/fibres/breeds.html", context, faults)
    messages.success(request, "Kept. It can be chosen wherever a breed is.")
    return redirect("stash:breeds", studio=request.studio.slug)
