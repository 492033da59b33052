"""Carding a blend: the bag is made; and the tuft it will be, drawn."""

from __future__ import annotations

import zlib
from typing import TYPE_CHECKING, Any

import numpy as np
from django.contrib import messages
from django.core.exceptions import ValidationError
from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.core.colour.tuft import PASSES, tuft
from wembit.core.craft.materials import LOSS_CARDING
from wembit.core.tables import number
from wembit.web.colour.recipes import shares_of
from wembit.web.errors import Refusal
from wembit.web.fields import weight_field
from wembit.web.idempotency import press_of
from wembit.web.responses import again, tried
from wembit.web.stash.actions.blend import blend
from wembit.web.stash.actions.keep_carding import keep_carding
from wembit.web.stash.queries import lot_of
from wembit.web.stash.swatch import curve_of
from wembit.web.studio.models import MAKER

from .views import map_context

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request

FIELDS = {"amount": "card_grams", "grams": "card_grams", "form": "into", "loss": ""}  # where the form shows them


@require_POST
def card(request: Request) -> HttpResponse:
    """Make a bag of a recipe; the map comes back with what is wrong."""
    request.member.must_be(MAKER)
    faults: dict[str, str] = {}
    made: Any = None
    try:
        grams = weight_field(request.member, least=0.01).clean(request.POST.get("card_grams", ""))
    except ValidationError as fault:
        faults["card_grams"] = fault.messages[0]
    if not faults:

        def do() -> Any:
            return blend(
                request.member,
                shares_of(request.POST.get("recipe", "")),
                grams,
                name=request.POST.get("name", "")[:80],
                form=request.POST.get("into", ""),
                press=press_of(request),
                loss=request.studio.habits.get("carding_loss", LOSS_CARDING),
                drawer=request.POST.get("drawer_name", "")[:40],
                anyway=bool(request.POST.get("anyway")),
            )

        made, faults = tried(do)
    if faults:
        context, _ = map_context(request)
        faults = {FIELDS.get(key, key): words for key, words in faults.items()}
        return again(request, "colour/map/map.html", {**context, "carding": request.POST.get("recipe", "")}, faults)
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
    )
    return render(request, "colour/map/tuft.svg", {"strands": strands}, content_type="image/svg+xml")


@require_POST
def habits(request: Request) -> HttpResponse:
    """How this studio cards: the forms that go together, the limits of a recipe, the loss."""
    request.member.must_be(MAKER)
    given, faults = request.POST, {}
    try:
        numbers_ = [number(given.get(name, "")) for name in ("fibres", "parts", "loss")]
    except ValueError:
        numbers_ = []
    told = [value for value in numbers_ if value is not None]
    if len(told) != 3:
        faults["loss"] = "Write whole numbers of fibres and parts, and the loss in per cent."
    else:
        fibres, parts, loss = told
        chosen = given.getlist("blends")
        _, faults = tried(
            lambda: keep_carding(request.member, chosen, fibres=int(fibres), parts=int(parts), loss_percent=loss)
        )
    if faults:
        context, _ = map_context(request)
        return again(request, "colour/map/map.html", {**context, "chosen_blends": given.getlist("blends")}, faults)
    messages.success(request, "Kept.")
    return redirect("colour:home", studio=request.studio.slug)
