"""Telling a bag's colour: by its picture with a card, by eye beside its neighbours, in numbers, by an instrument."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django import forms
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

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.stash.models import Lot

NEIGHBOURS = 8
SPOTS = ("card_x", "card_y", "wool_x", "wool_y")


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
        "nudges": [(each.name, each.text) for each in nudges(lab)],
        "neighbours": [(others.rows[each.index], each.de00) for each in near],
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
    way = request.POST.get("do", "")
    if way == "read":
        reading, faults = tried(lambda: told_by_picture(lot, *_spots(request)))
        if faults:
            return again(request, "colour/measure/tell.html", tell_context(request, lot), faults)
        context = {**tell_context(request, lot), "reading": reading, "kept": request.POST}
        return render(request, "colour/measure/tell.html", context)
    if way == "photo":
        _, faults = tried(lambda: _picture(request, lot))
        if not faults:
            return redirect("colour:tell", studio=request.studio.slug, lot_id=lot.pk)
    else:
        _, faults = tried(lambda: tell_colour(request.member, lot_id, _fields(request, way)))
        if not faults:
            messages.success(request, f"{lot.item.name} has its colour.")
            return redirect("stash:lot", studio=request.studio.slug, lot_id=lot.pk)
    return again(request, "colour/measure/tell.html", tell_context(request, lot), faults)


def _spots(request: Request) -> Any:
    """Where wool and card were touched, and which card it is. Raises `Refusal`."""
    try:
        found = {
            name: forms.FloatField(min_value=0, max_value=20_000).clean(request.POST.get(name, "")) for name in SPOTS
        }
    except forms.ValidationError:
        raise Refusal("Touch the card in the picture, then the wool.", "card") from None
    kind = request.POST.get("kind", "white")
    if kind not in CARDS:
        raise Refusal("Choose which card it is.", "kind")
    return (found["wool_x"], found["wool_y"]), (found["card_x"], found["card_y"]), kind


def _fields(request: Request, way: str) -> dict:
    if way == "instrument":
        return told_by_instrument(request.FILES.get("table"))
    return told_in_words(request.POST.get("colour", "")[:60])


def _picture(request: Request, lot: Lot) -> None:
    picture = cleaned(request.FILES.get("photo"), request.studio)
    if picture is None:
        raise Refusal("Choose a picture of the wool with the card in it.", "photo")
    picture_lot(request.member, lot.pk, picture)
