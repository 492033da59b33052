"""How big a figure comes out: by times, by a finished size of it or of a part, or backwards from the wool there is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from django import forms
from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_http_methods

from wembit.core.grams.largest_scale import LARGEST, SMALLEST, Largest
from wembit.web.figures import queries
from wembit.web.figures.actions.resize_figure import resize_figure
from wembit.web.figures.drawing.layout import pictures, together
from wembit.web.figures.drawing.pointers import stance
from wembit.web.figures.drawing.takes_row import takes_row
from wembit.web.figures.to_core.estimating import FigurePlan, Palette, plan_figure, sums
from wembit.web.figures.to_core.scaling import at_scale
from wembit.web.figures.to_core.wiring import legs_of
from wembit.web.responses import page
from wembit.web.stash.models import FIBRE, Item
from wembit.web.stash.queries import items
from wembit.web.stash.shelf.wool_forms import each_once
from wembit.web.studio.models import MAKER

from .asked_size import ALL, HIGH, LONG, Asked
from .forms import SizeForm
from .pulling import Pull, tip_of

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.figures.models import Figure
    from wembit.web.request import Request


@dataclass(frozen=True)
class WoolChange:
    """What one wool comes to now and then, and what is free of it."""

    item: Item
    now_g: float
    then_g: float
    free_g: float | None
    unweighed: int

    @property
    def short_g(self) -> float:
        """How much of it is missing for the size then; 0 where nobody knows how much there is."""
        return 0.0 if self.free_g is None or self.unweighed else max(0.0, self.then_g - float(self.free_g))


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
        found = Asked(request, version, parts, palette, before, known).largest()
    except forms.ValidationError as fault:
        faults = {given.get("way", ""): fault.messages[0]}
    plan = plan_figure(version, parts, palette)
    scaled = at_scale(version, parts, found.scale)
    then = plan_figure(version, scaled, palette)
    taken = takes_row(sums(then), palette, free)
    after = pictures(version, scaled, palette)["side"]
    if then.fault:
        faults[given.get("way", "")] = f"At that size something does not fit: {then.fault.what}."
    limiting = next((item for item in palette.items.values() if str(item.pk) == found.fibre), None)
    stands = not then.fault and stance(version, scaled, then)[1] is not None
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
        "tip": tip_of(scaled) if after.shapes else None,
        "pull": Pull.of(before, after, request.studio),
        "taken": taken,
        "taken_forms": each_once(each.drawing for each in taken),
        "plan": plan,
        "then": then,
        "rows": _rows(plan, then, free, {item.pk: item.unweighed for item in on_shelf}),
        "choices": [(ALL, "all its wools together"),
                    *((str(item.pk), item.name) for item in dict.fromkeys(palette.items.values()))],
        "measured": [(HIGH, "the whole, high"), (LONG, "the whole, long"),
                     *((part.key, f"the {part.name}, at its longest") for part in parts if part.shape["kind"] != "none")],
        "least": f"{SMALLEST:g}", "most": f"{LARGEST:g}",
        "legs": legs_of(scaled, then.all.p50) if stands else [],
        "faults": faults,
        "kept": given,
    }  # fmt: skip
    if request.htmx.target == "grown":  # while it is still being pulled
        return render(request, "figures/resize/_grown.html", context)
    return page(request, "figures/resize/size.html", "figures/resize/_size.html", context, 422 if faults else 200)


def _keep(request: Request, figure: Figure) -> HttpResponse:
    request.member.must_be(MAKER)

    _, faults = SizeForm(request).tried(lambda given: resize_figure(request.member, figure.pk, given["scale"]))
    if faults:
        messages.error(request, next(iter(faults.values())))
        return redirect("figures:size", studio=request.studio.slug, figure_id=figure.pk)
    return redirect("figures:figure", studio=request.studio.slug, figure_id=figure.pk)


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
