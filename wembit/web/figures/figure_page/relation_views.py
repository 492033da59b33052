"""Parts that follow other parts, and a piece of wool divided among them."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.contrib import messages
from django.http import QueryDict
from django.shortcuts import redirect
from django.urls import reverse
from django.views.decorators.http import require_http_methods, require_POST
from django_htmx.http import HttpResponseClientRedirect

from wembit.core.portions import TooMuch, divide
from wembit.web import numbers
from wembit.web.figures import queries
from wembit.web.figures.actions.follow_part import follow_part
from wembit.web.figures.actions.give_weights import give_weights
from wembit.web.figures.actions.let_go import let_go
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, plan_figure
from wembit.web.responses import page, tried
from wembit.web.studio.models import MAKER

from .forms import REST, DivideForm, LooseForm, RelationForm
from .page import answer, moved

if TYPE_CHECKING:
    from typing import Any
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.stash.models import Item

LEAST_G = 0.01  # of a wool, to be divided


@require_POST
def follow(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    request.member.must_be(MAKER)
    version = queries.newest_version(figure)
    form = RelationForm(request, queries.part_of(version, key), queries.parts_of(version))
    _, faults = form.tried(lambda _: follow_part(request.member, figure.pk, key, form.relation()))
    return answer(request, figure, key, faults) if faults else moved(request, figure, key)


@require_POST
def loose(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    _, faults = LooseForm(request).tried(lambda given: let_go(request.member, figure.pk, key, given["size"]))
    return answer(request, figure, key, faults) if faults else moved(request, figure, key)


@require_http_methods(["GET", "POST"])
def divided(request: Request, figure_id: UUID) -> HttpResponse:
    """A piece of wool divided among the parts by shares; POST gives the parts these weights."""
    figure = queries.figure_of(request.studio, figure_id)
    if request.method == "POST":
        request.member.must_be(MAKER)
    version = queries.newest_version(figure)
    parts = [part for part in queries.parts_of(version) if part.shape["kind"] != "none"]
    palette = Palette.of(queries.colourway_of(version))
    given: QueryDict = request.POST if request.method == "POST" else request.GET
    fibres = list(dict.fromkeys(palette.items.values()))
    item = next((fibre for fibre in fibres if str(fibre.pk) == given.get("item")), fibres[0] if fibres else None)
    labels = [(f"share_{part.key}", f"{part.count} × {part.name}" if part.count > 1 else part.name) for part in parts]
    context: dict[str, Any] = {
        "figure": figure,
        "share_fields": labels,
        "fibres": [(fibre.pk, fibre.name) for fibre in fibres],
        "kept": given,
        "item": item,
        "colour": palette.colour(_slot_of(palette, item)),
        "faults": {},
    }
    if request.method == "GET" and "grams" not in given and not any(share.startswith("share_") for share in given):
        plan = plan_figure(version, parts, palette)
        for fibre in [item] if item and "item" in given else fibres:
            if "grams" in (filled := _own_shares(request, plan, palette, fibre)):
                given = filled
                context |= {"kept": filled, "item": fibre, "colour": palette.colour(_slot_of(palette, fibre))}
                break
        item = context["item"]
    if "grams" in given or request.method == "POST":
        context |= _portions(DivideForm(request, given, parts), item)
    if request.method == "POST" and not context["faults"]:
        weights = {part.key: portion.each_g for part, portion in context["given_to"]}
        _, faults = tried(lambda: give_weights(request.member, figure.pk, weights))
        if not faults:
            messages.success(request, "Every part takes its share now.")
            address = reverse("figures:figure", args=[request.studio.slug, figure.pk])
            return HttpResponseClientRedirect(address) if request.htmx else redirect(address)
        context["faults"] = {"grams": next(iter(faults.values()))}
    return page(
        request,
        "figures/figure_page/divide.html",
        "figures/figure_page/_divide.html",
        context,
        422 if context["faults"] else 200,
    )


def _slot_of(palette: Palette, item: Item | None) -> Any:
    return next((slot for slot, each in palette.items.items() if each == item), None)


def _own_shares(request: Request, plan: FigurePlan, palette: Palette, item: Item) -> QueryDict:
    """What the parts that are of this wool alone take of it, and each one's share of that, as the form would be filled in.
    Parts of several wools stay out: the weight that a part is given is its whole weight.
    """
    filled = QueryDict(mutable=True)
    if plan.fault:
        return filled
    of_it = {
        each.part.key: sum(layer.grams.middle for layer in each.layers)
        for each in plan.parts
        if each.layers and all(palette.items.get(layer.layer.slot_id) == item for layer in each.layers)
    }
    whole = sum(of_it.values())
    if whole < LEAST_G:
        return filled
    largest = max(of_it, key=lambda key: of_it[key])
    shares = {f"share_{key}": f"{100 * grams / whole:.2f} %" for key, grams in of_it.items() if key != largest}
    filled.update(
        {"item": str(item.pk), "grams": numbers.field_grams(whole, request.studio), f"share_{largest}": REST, **shares}
    )
    return filled


def _portions(form: DivideForm, item: Item | None) -> dict:
    """What the form's shares come to; or its faults."""
    if not form.is_valid():
        return {"faults": form.faults}
    grams, wishes = float(form.cleaned_data["grams"]), form.wishes()
    if not wishes:
        return {"faults": {"grams": "Give at least one part a share."}}
    try:
        portions, left = divide(grams, [wish for _, wish in wishes])
    except TooMuch as fault:
        words = f"The shares come to {float(fault.total):.3g} of it. Make them smaller, or leave one at “rest”."
        return {"faults": {f"share_{wishes[-1][0].key}": words}}
    drawn, start = [], 0.0
    for portion in portions:
        drawn.append(_drawn(portion, start, grams, item))
        start += portion.grams
    return {
        "portions": drawn,
        "left": left,
        "left_from": 1000 - 1000 * left / grams,
        "left_width": 1000 * left / grams,
        "whole_mm": strand_mm(grams, item),
        "given_to": [(part, portion) for (part, _), portion in zip(wishes, portions, strict=True)],
    }


def strand_mm(grams: float, item: Item | None) -> float | None:
    """How long a strand of the item weighs so much; None where it is no strand."""
    a_metre = item.grams_a_metre if item else None
    return grams / a_metre * 1000 if a_metre else None


def _drawn(portion: Any, start: float, whole: float, item: Item | None) -> dict:
    """A portion as a stretch of the whole strand, 1000 wide."""
    return {
        "name": portion.name,
        "count": portion.count,
        "grams": portion.grams,
        "each_g": portion.each_g,
        "each_mm": strand_mm(portion.each_g, item),
        "width": 1000 * portion.grams / whole,
        "left": 1000 * start / whole,
        "cuts": [1000 * (start + portion.each_g * k) / whole for k in range(1, portion.count)],
    }
