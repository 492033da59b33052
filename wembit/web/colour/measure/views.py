"""Telling a bag's colour: by its picture with a card, by eye beside its neighbours, in numbers, by an instrument."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_http_methods

from wembit.core.colour.matching import nearest
from wembit.core.colour.photo import CARDS
from wembit.web.colour.map.target import target_of
from wembit.web.colour.queries import wools
from wembit.web.errors import Refusal
from wembit.web.responses import again, tried
from wembit.web.stash.actions.picture_lot import picture_lot
from wembit.web.stash.actions.tell_colour import tell_colour
from wembit.web.stash.queries import lot_of
from wembit.web.stash.swatch import curve_of
from wembit.web.studio.models import MAKER
from wembit.web.uploads import cleaned

from .colour_form import nudges, told_by_instrument, told_by_picture, told_in_words
from .forms import SpotsForm, TellForm

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.stash.models import Lot

NEIGHBOURS = 8


def tell_context(request: Request, lot: Lot) -> dict:
    """The colour in hand, which is the bag's own until another is tried by eye, and the bags nearest to it."""
    shelf = wools(request.studio)
    try:
        trial = target_of({"colour": request.GET.get("colour", "")}, shelf)
    except Refusal:
        trial = None
    own = (lot.lab_l or 0.0, lot.lab_a or 0.0, lot.lab_b or 0.0) if lot.srgb else (60.0, 0.0, 5.0)
    lab = trial.lab if trial else own
    others = shelf.only([n for n, wool in enumerate(shelf.rows) if wool.lot_id != str(lot.pk)])
    near = nearest(lab, [wool.lot_id for wool in others.rows], others.labs, NEIGHBOURS) if others.rows else []
    return {
        "lot": lot,
        "item": lot.item,
        "trial": trial,
        "srgb": trial.srgb if trial else lot.srgb,
        "lab": lab,
        "nudges": [(nudge.name, nudge.text) for nudge in nudges(lab)],
        "neighbours": [(others.rows[neighbour.index], neighbour.de00) for neighbour in near],
        "cards": [(kind, f"{kind} card") for kind in CARDS],
        "curve": curve_of(bytes(lot.curve)) if lot.curve else None,
    }


@require_http_methods(["GET", "POST"])
def tell(request: Request, lot_id: UUID) -> HttpResponse:
    """`do` says which way: words, eye, instrument, photo (a new picture), or read (where card and wool were touched)."""
    lot = lot_of(request.studio, lot_id)
    if request.method == "GET":
        return render(request, "colour/measure/tell.html", tell_context(request, lot))
    request.member.must_be(MAKER)
    form = TellForm(request)
    way = form.cleaned_data["do"] if form.is_valid() else ""
    if way == "read":
        reading, faults = SpotsForm(request).tried(lambda given: told_by_picture(lot, *_spots(given)))
        if faults:
            return again(request, "colour/measure/tell.html", tell_context(request, lot), faults)
        context = {**tell_context(request, lot), "reading": reading, "kept": request.POST}
        return render(request, "colour/measure/tell.html", context)
    if way == "photo":
        _, faults = tried(lambda: _picture(request, lot))
        if not faults:
            return redirect("colour:tell", studio=request.studio.slug, lot_id=lot.pk)
    else:
        _, faults = form.tried(lambda given: tell_colour(request.member, lot_id, _told(request, given)))
        if not faults:
            messages.success(request, f"{lot.item.name} has its colour.")
            return redirect("stash:lot", studio=request.studio.slug, lot_id=lot.pk)
    return again(request, "colour/measure/tell.html", tell_context(request, lot), faults)


def _spots(given: dict[str, Any]) -> Any:
    """Where wool and card were touched, and which card it is."""
    return (given["wool_x"], given["wool_y"]), (given["card_x"], given["card_y"]), given["kind"] or "white"


def _told(request: Request, given: dict[str, Any]) -> dict:
    """The colour of an instrument's table, or that of the words. Raises `Refusal`."""
    if given["do"] == "instrument":
        return told_by_instrument(request.FILES.get("table"))
    return told_in_words(given["colour"])


def _picture(request: Request, lot: Lot) -> None:
    picture = cleaned(request.FILES.get("photo"), request.studio)
    if picture is None:
        raise Refusal("Choose a picture of the wool with the card in it.", "photo")
    picture_lot(request.member, lot.pk, picture)
