"""Colourways side by side, faces side by side, versions and figures side by side."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_GET, require_POST

from wembit.web.asked import id_in
from wembit.web.errors import Refusal
from wembit.web.figures import queries
from wembit.web.figures.actions.add_colourway import add_colourway
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.actions.drop_colourway import drop_colourway
from wembit.web.figures.actions.keep_face import drop_face, keep_face, wear_face
from wembit.web.figures.actions.put_first import put_first
from wembit.web.figures.actions.swap_fibre import swap_fibre
from wembit.web.figures.drawing.fibre_options import fibre_options
from wembit.web.figures.drawing.layout import pictures
from wembit.web.figures.figure_page.page import answer, moved
from wembit.web.responses import page, tried
from wembit.web.studio.models import MAKER

from .comparison import Side, beside, compared, side_of
from .faces import faces_of
from .forms import FaceForm, SlotForm, SwapForm, TouchForm, WayForm
from .touched import place_touched, wools_to_lay_on

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.figures.models import Figure
    from wembit.web.request import Request


def shown(request: Request, figure: Figure, faults: dict | None = None, swapped: dict | None = None) -> HttpResponse:
    """The colourways as one table of colours and one row of small drawings."""
    version = queries.newest_version(figure)
    parts = queries.parts_of(version)
    ways = list(version.colourways.order_by("position", "name"))
    palettes = queries.palettes(request.studio, ways)
    slots = list(version.slots.all())
    columns = [(way, pictures(version, parts, palettes[way.pk])["side"], palettes[way.pk]) for way in ways]
    rows = [
        (slot, [(way, palette.items.get(slot.pk), palette.colour(slot.pk)) for way, _, palette in columns])
        for slot in slots
    ]
    in_hand = request.POST.get("item", "") if request.POST.get("do") == "touched" else ""
    used = {way.name: dict.fromkeys(palette.items.values()) for way, _, palette in columns}
    context = {
        "figure": figure, "version": version, "columns": columns, "rows": rows, "faults": faults or {}, "used": used,
        "swaps": [(f"{way.name}/{item.pk}", f"{item.name} in {way.name}") for way in ways for item in used[way.name]],
        "wools": wools_to_lay_on(request.studio), "in_hand": in_hand,
        "wool_by_wool": "slot" in request.POST,
        "swapped": swapped, "fibre_options": fibre_options(request.studio), "lists": "lists" in request.GET,
        "faces": faces_of(version, parts, palettes[ways[0].pk]) if version.faces else [],
    }  # fmt: skip
    if faults:
        context["kept"] = request.POST
    return page(
        request, "figures/colourways/colours.html", "figures/colourways/_colours.html", context, 422 if faults else 200
    )


@require_GET
def colours(request: Request, figure_id: UUID) -> HttpResponse:
    return shown(request, queries.figure_of(request.studio, figure_id))


@require_POST
def way(request: Request, figure_id: UUID) -> HttpResponse:
    """A colourway more, one less, one put first, or a fibre of one, by the button that was pressed."""
    figure = queries.figure_of(request.studio, figure_id)
    member, form = request.member, WayForm(request)
    member.must_be(MAKER)
    if not form.is_valid():
        return shown(request, figure, form.faults)
    given, faults = form.cleaned_data, dict[str, str]()
    match given["do"]:
        case "add":
            _, faults = tried(lambda: add_colourway(member, figure.pk, given["way_name"], like=given["like"]))
        case "drop":
            _, faults = tried(lambda: drop_colourway(member, figure.pk, given["way"]))
        case "first":
            put_first(member, figure.pk, given["way"])
        case "touched":
            _, faults = TouchForm(request).tried(lambda told: _lay_on(request, figure, told))
        case _:
            _, faults = SlotForm(request).tried(
                lambda told: choose_fibre(member, figure.pk, told["slot"], told["item"], way=told["way"])
            )
    return shown(request, figure, faults)


def _lay_on(request: Request, figure: Figure, told: dict[str, Any]) -> None:
    """The wool in hand for the place that was touched."""
    version = queries.newest_version(figure)
    named = {way.name: way for way in version.colourways.all()}
    if told["way"] not in named:
        raise Refusal("That colourway is gone. Look at the page again.", "way")
    palette = queries.palettes(request.studio, [named[told["way"]]])[named[told["way"]].pk]
    slot = place_touched(queries.parts_of(version), palette, told["part"], told["srgb"])
    if not slot:
        raise Refusal("No wool lies there. Touch another part.", "way")
    choose_fibre(request.member, figure.pk, slot, told["item"], way=told["way"])


@require_POST
def swap(request: Request, figure_id: UUID) -> HttpResponse:
    """One fibre for another everywhere in a colourway; the answer carries the press that takes it back."""
    figure = queries.figure_of(request.studio, figure_id)
    request.member.must_be(MAKER)

    def do(given: dict[str, Any]) -> dict | None:
        (name, old), new, slots = given["old"], given["new"], given["slot"] or None
        changed = swap_fibre(request.member, figure.pk, name, old, new, slots=slots)
        return None if slots else {"old": f"{name}/{new}", "new": str(old), "slots": changed}

    back, faults = SwapForm(request).tried(do)
    if back is None and not faults:
        messages.success(request, "Taken back.")
    return shown(request, figure, faults, back)


@require_POST
def face(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    member, form = request.member, FaceForm(request)
    member.must_be(MAKER)
    if not form.is_valid():
        return answer(request, figure, "", form.faults)
    given = form.cleaned_data
    match given["do"]:
        case "wear":
            wear_face(member, figure.pk, given["face"])
            return moved(request, figure)
        case "drop":
            drop_face(member, figure.pk, given["face"])
            return shown(request, figure)
    _, faults = tried(lambda: keep_face(member, figure.pk, given["face_name"]))
    if faults:
        return answer(request, figure, "", faults)
    return redirect("figures:colours", studio=request.studio.slug, figure_id=figure.pk)


@require_GET
def compare(request: Request, figure_id: UUID) -> HttpResponse:
    """Two versions, or two figures, side by side."""
    figure = queries.figure_of(request.studio, figure_id)
    versions = queries.versions_of(figure)
    one = next((version for version in versions if str(version.pk) == request.GET.get("one")), versions[0])
    other = id_in(request.GET.get("two", ""))
    others = [each for each in queries.figures(request.studio) if each.pk != figure.pk and each.newest]
    two = queries.version_of(request.studio, other) if other else beside(one, versions, others)
    left: Side = side_of(one)
    right = side_of(two) if two else None
    choices = [(version.pk, f"{figure.name}, version {version.number}") for version in versions]
    context = {
        "figure": figure, "left": left, "right": right, "ones": choices, "one": one, "two": two,
        "twos": [*choices, *((each.newest.pk, each.name) for each in others if each.newest)],
        "sides": [left, right], **(compared(left, right) if right else {}),
    }  # fmt: skip
    return page(request, "figures/colourways/compare.html", "figures/colourways/_compare.html", context)
