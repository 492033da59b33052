"""Carding a blend: the bag is made; and the tuft it will be, drawn."""

from __future__ import annotations

import zlib
from typing import TYPE_CHECKING

import numpy as np
from django.contrib import messages
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.core.colour.tuft import PASSES, tuft
from wembit.core.craft.materials import LOSS_CARDING
from wembit.web.colour.recipes import shares_of
from wembit.web.errors import Refusal
from wembit.web.idempotency import press_of
from wembit.web.responses import again
from wembit.web.stash.actions.blend import blend
from wembit.web.stash.actions.keep_carding import keep_carding
from wembit.web.stash.mixing import mixing_of
from wembit.web.stash.queries import lot_of
from wembit.web.stash.swatch import curve_of
from wembit.web.studio.models import MAKER

from .forms import CardForm, HabitsForm
from .views import map_context

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request

FIELDS = {"amount": "card_grams", "grams": "card_grams", "form": "into", "loss": ""}  # where the form shows them


@require_POST
def card(request: Request) -> HttpResponse:
    """Make a bag of a recipe; the map comes back with what is wrong."""
    request.member.must_be(MAKER)
    form = CardForm(request)
    made, faults = form.tried(
        lambda given: blend(
            request.member,
            shares_of(given["recipe"]),
            given["card_grams"],
            name=given["name"],
            form=given["into"],
            press=press_of(request),
            loss=request.studio.habits.get("carding_loss", LOSS_CARDING),
            drawer=given["drawer_name"],
            anyway=given["anyway"],
        )
    )
    if faults:
        context, _ = map_context(request)
        faults = {FIELDS.get(key, key): words for key, words in faults.items()}
        return again(
            request, "colour/map/map.html", {**context, "carding": form.cleaned_data.get("recipe", "")}, faults
        )
    messages.success(request, f"{made.lot.item.name} is on the shelf. When it is carded, tell its real colour here.")
    return redirect("stash:lot", studio=request.studio.slug, lot_id=made.lot.pk)


@require_GET
def drawn_tuft(request: Request, recipe: str) -> HttpResponse:
    """A tuft of a recipe as SVG, after so many passes, close by or at arm's length."""
    try:
        shares = shares_of(recipe)
    except Refusal:
        raise Http404 from None
    lots = [lot_of(request.studio, share.lot_id) for share in shares]
    passes = request.GET.get("passes", "")
    if passes not in map(str, PASSES) or any(lot.curve is None for lot in lots):
        raise Http404
    curves = np.array([curve_of(bytes(lot.curve or b"")) for lot in lots])
    strands = tuft(
        curves,
        [share.parts for share in shares],
        int(passes),
        close="far" not in request.GET,
        seed=zlib.crc32(recipe.encode()),
        m=mixing_of(request.studio).m,
    )
    return render(request, "colour/map/tuft.svg", {"strands": strands}, content_type="image/svg+xml")


@require_POST
def habits(request: Request) -> HttpResponse:
    """How this studio cards: the forms that go together, the limits of a recipe, the loss."""
    request.member.must_be(MAKER)
    form = HabitsForm(request)
    _, faults = form.tried(
        lambda given: keep_carding(
            request.member,
            given["blends"],
            fibres=given["fibres"],
            parts=given["parts"],
            loss_percent=given["loss"],
        )
    )
    if faults:
        context, _ = map_context(request)
        chosen = form.cleaned_data.get("blends", [])
        return again(request, "colour/map/map.html", {**context, "chosen_blends": chosen}, faults)
    messages.success(request, "Kept.")
    return redirect("colour:home", studio=request.studio.slug)
