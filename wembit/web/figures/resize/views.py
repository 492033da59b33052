"""How big a figure comes out: by times, by its finished height, or backwards from the wool there is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from django import forms
from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_http_methods

from wembit.core.errors import BadInput
from wembit.core.grams.largest_scale import LARGEST, SMALLEST, Largest, TooLittle, largest, scale_for
from wembit.web import numbers
from wembit.web.fields import length_field, number, weight_field
from wembit.web.figures import queries
from wembit.web.figures.actions.resize_figure import resize_figure
from wembit.web.figures.drawing.layout import pictures, together
from wembit.web.figures.to_core.estimating import LOOSE_END, FigurePlan, Palette, plan_figure, request_of, sums
from wembit.web.figures.to_core.scaling import scaled_parts
from wembit.web.responses import page
from wembit.web.stash.models import FIBRE, Item
from wembit.web.stash.queries import items
from wembit.web.studio.models import MAKER

from .forms import SizeForm

if TYPE_CHECKING:
    from collections.abc import Sequence
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.figures.models import Figure, Part, Version
    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

TRIES, NEAR_MM = 6, 0.02


@dataclass(frozen=True)
class WoolChange:
    """What one wool comes to now and then, and what is free of it."""

    item: Item
    now_g: float
    then_g: float
    free_g: float | None
    unweighed: int


@require_http_methods(["GET", "POST"])
def size(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    if request.method == "POST":
        return _keep(request, figure)
    version = queries.newest_version(figure)
    parts, palette = queries.parts_of(version), Palette.of(queries.colourway_of(version))
    before = pictures(version, parts, palette)["side"]
    given, faults, found = request.GET, {}, Largest(1.0, None)
    on_shelf = [item for item in items(request.studio) if item.kind == FIBRE]
    free = {item.pk: item.on_hand if "promised" in given else item.free for item in on_shelf}
    known = {item.pk: free[item.pk] for item in on_shelf if not item.unweighed}
    try:
        found = _wanted(request, version, parts, palette, before, known)
    except forms.ValidationError as fault:
        faults = {given.get("way", ""): fault.messages[0]}
    plan = plan_figure(version, parts, palette)
    scaled = _times(version, parts, found.scale)
    then = plan_figure(version, scaled, palette)
    after = pictures(version, scaled, palette)["side"]
    if then.fault:
        faults[given.get("way", "")] = f"At that size something does not fit: {then.fault.what}."
    limiting = next((item for item in palette.items.values() if str(item.pk) == found.fibre), None)
    context = {
        "figure": figure,
        "version": version,
        "high": round(before.tall, 1),
        "promised": "promised" in given,
        "scale": found.scale,
        "changed": abs(found.scale - 1) > 1e-9 and not then.fault,
        "limiting": limiting,
        "uncounted": [item for item in dict.fromkeys(palette.items.values()) if item.pk not in known],
        "before": before,
        "after": after,
        "both": together(before, after),
        "plan": plan,
        "then": then,
        "rows": _rows(plan, then, free, {item.pk: item.unweighed for item in on_shelf}),
        "choices": [(str(item.pk), item.name) for item in dict.fromkeys(palette.items.values())],
        "faults": faults,
        "kept": given,
    }
    return page(request, "figures/resize/size.html", "figures/resize/_size.html", context, 422 if faults else 200)


def _keep(request: Request, figure: Figure) -> HttpResponse:
    request.member.must_be(MAKER)

    _, faults = SizeForm(request).tried(lambda given: resize_figure(request.member, figure.pk, given["scale"]))
    if faults:
        messages.error(request, next(iter(faults.values())))
        return redirect("figures:size", studio=request.studio.slug, figure_id=figure.pk)
    return redirect("figures:figure", studio=request.studio.slug, figure_id=figure.pk)


def _wanted(
    request: Request, version: Version, parts: Sequence[Part], palette: Palette, before: Any, free: dict
) -> Largest:
    """The scale that the form asks for. Raises `ValidationError` with what to change."""
    given = request.GET
    match given.get("way"):
        case "times":
            try:
                scale = number(given.get("times", ""), "how many times, like 1.5,")
            except ValueError as fault:
                raise forms.ValidationError(str(fault)) from None
            return Largest(_within(scale), None)
        case "height":
            wanted = length_field(request.studio, least=1).clean(given.get("height", ""))
            if not before.tall:
                raise forms.ValidationError("Begin with a part: there is no height yet.")
            return Largest(_as_high(version, parts, palette, float(wanted)), None)
        case "shelf":
            there = _there(palette, free)
        case "wool":
            item = next((other for other in palette.items.values() if str(other.pk) == given.get("item")), None)
            if item is None:
                raise forms.ValidationError("Choose a wool of the figure.")
            grams = weight_field(request.member, least=0.01).clean(given.get("grams", ""))
            there = {str(item.pk): float(grams)}
        case _:
            return Largest(1.0, None)
    names = {str(item.pk): item.name for item in palette.items.values()}
    try:
        return largest(request_of(version, parts, palette), there, odds="p90" if "sure" in given else "p50")
    except TooLittle as fault:
        raise forms.ValidationError(_too_little(names[fault.fibre], fault.there_g, request.studio)) from None
    except BadInput as fault:
        raise forms.ValidationError(f"The figure cannot be computed: {fault.what}.") from None


def _there(palette: Palette, free: dict) -> dict[str, float]:
    """What there is of each wool of which all bags are weighed. Raises `ValidationError` where that is none."""
    there = {str(item.pk): float(free[item.pk]) for item in palette.items.values() if item.pk in free}
    if not there and palette.items:
        raise forms.ValidationError("No bag of its wools is weighed. Weigh one first.")
    return there


def _as_high(version: Version, parts: Sequence[Part], palette: Palette, wanted_mm: float) -> float:
    """The scale at which the figure is drawn that high; asked again where locks do not grow with it."""
    scale = 1.0
    for _ in range(TRIES):
        tall = pictures(version, _times(version, parts, scale), palette)["side"].tall
        if abs(tall - wanted_mm) < NEAR_MM:
            break
        scale = _within(scale_for(tall, scale, wanted_mm))
    return scale


def _times(version: Version, parts: Sequence[Part], scale: float) -> Sequence[Part]:
    """The parts as they would be at that scale."""
    return parts if scale == 1 else scaled_parts(parts, scale, version.studio.habits.get(LOOSE_END, 0.0))


def _too_little(name: str, there_g: float, studio: Studio) -> str:
    if there_g:
        there = " ".join(numbers.grams(there_g, studio))
        return f"There are {there} of {name}, too little for even the smallest. Give its place another wool."
    return f"No {name} is free. Count what is promised to others too, or give its place another wool."


def _within(scale: float) -> float:
    if not SMALLEST <= scale <= LARGEST:
        raise forms.ValidationError(f"That is {scale:.3g} times. Choose between {SMALLEST:g} and {LARGEST:g} times.")
    return scale


def _rows(plan: FigurePlan, then: FigurePlan, free: dict, unweighed: dict[UUID, int]) -> list[WoolChange]:
    def by_item(found: FigurePlan) -> dict:
        grams: dict = {}
        for need in sums(found):
            if need.item:
                grams[need.item] = grams.get(need.item, 0.0) + need.grams.p50
        return grams

    now, after = by_item(plan), by_item(then)
    return [
        WoolChange(item, grams, after.get(item, 0.0), free.get(item.pk), unweighed.get(item.pk, 0))
        for item, grams in now.items()
    ]
