"""Parts drawn over a picture of one's own."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.core.craft.materials import FIRMNESS_WORDS
from wembit.core.craft.part_kinds import KINDS
from wembit.web.errors import Refusal
from wembit.web.figures import queries
from wembit.web.figures.actions.add_reference import add_reference
from wembit.web.figures.actions.begin_tracing import begin_tracing
from wembit.web.figures.actions.drop_reference import drop_reference
from wembit.web.figures.actions.keep_tracing import keep_tracing
from wembit.web.figures.actions.trace import trace
from wembit.web.figures.models import Tracing
from wembit.web.figures.size_words import WORDS
from wembit.web.figures.to_core import tracings
from wembit.web.once import once
from wembit.web.responses import again, page, tried
from wembit.web.uploads import cleaned

from .forms import BoardForm, KeepForm, NewForm, PictureForm

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


@require_http_methods(["GET", "POST"])
@once
def new(request: Request, figure_id: UUID) -> HttpResponse:
    """Choose what it becomes and the picture to draw over."""
    figure = queries.figure_of(request.studio, figure_id)
    context = {"figure": figure, "references": figure.references.all(), "tracings": figure.tracings.all()[:12],
               "kinds": Tracing.KINDS}  # fmt: skip
    if request.method == "GET":
        return render(request, "figures/trace/trace_new.html", context)

    def do(given: dict[str, Any]) -> Tracing:
        reference = given["reference"]
        if request.FILES.get("photo"):
            image = cleaned(request.FILES["photo"], request.studio)
            reference = add_reference(request.member, figure.pk, image, words=given["words"]).pk
        return begin_tracing(request.member, figure.pk, given["kind"], reference)

    made, faults = NewForm(request).tried(do)
    if faults:
        return again(request, "figures/trace/trace_new.html", context, faults)
    return redirect("figures:tracing", studio=request.studio.slug, figure_id=figure.pk, tracing_id=made.pk)


@require_http_methods(["GET", "POST"])
def board(request: Request, figure_id: UUID, tracing_id: UUID) -> HttpResponse:
    tracing = tracings.tracing_of(request.studio, figure_id, tracing_id)
    faults: dict[str, str] = {}
    if request.method == "POST":
        form = BoardForm(request, tracing)
        faults = form.faults
        if form.has("weigh"):  # while a point moves nothing is kept, so that no answer overtakes another
            request.saved_nothing = True
            if not faults:
                _, faults = tried(lambda: tracings.apply(tracing, form.changes()))
            return render(request, "figures/trace/_trace.html", shown(request, tracing, faults))
        if not faults:
            _, faults = tried(lambda: trace(request.member, figure_id, tracing_id, form.changes()))
        tracing = tracings.tracing_of(request.studio, figure_id, tracing_id)
        if not faults and not request.htmx:
            return redirect(request.path)
    return page(
        request,
        "figures/trace/trace.html",
        "figures/trace/_trace.html",
        shown(request, tracing, faults),
        422 if faults else 200,
    )


def shown(request: Request, tracing: Tracing, faults: dict) -> dict:
    """The board with its points, and what they come to."""
    width, height = tracings.board_size(tracing)
    points = [
        {"index": n, "x": x, "y": y, "x_mm": round(mm[0], 2), "y_mm": round(mm[1], 2)}
        for n, ((x, y), mm) in enumerate(zip(tracing.points, tracings.millimetres(tracing), strict=True))
    ]
    context = {
        "figure": tracing.figure, "tracing": tracing, "width": width, "height": height, "points": points,
        "dot": max(width, height) / 110, "grid": tracings.grid_of(tracing), "closed": tracing.kind != Tracing.WIRE,
        "way": "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in tracing.points) if tracing.points else "",
        "firmnesses": list(FIRMNESS_WORDS.items()), "kind_word": tracing.get_kind_display(), "faults": faults,
        "marks": tracing.marks or [[width * 0.1, height * 0.95], [width * 0.5, height * 0.95]],
        "kinds": [(kind, KINDS[kind].name) for kind in KINDS],
        "parts": [(part.key, part.name) for part in queries.parts_of(queries.newest_version(tracing.figure))
                  if part.shape["kind"] != "none"],
    }  # fmt: skip
    if faults:
        context["kept"] = request.POST
    if points:
        try:
            sizes, grams = tracings.weight_of(tracing)
            context |= {"sizes": [(WORDS[name], mm) for name, mm in sizes.items()], "grams": grams}
        except Refusal as trouble:
            context["trouble"] = trouble.message
    return context


@require_POST
def keep(request: Request, figure_id: UUID, tracing_id: UUID) -> HttpResponse:
    tracing = tracings.tracing_of(request.studio, figure_id, tracing_id)
    part, faults = KeepForm(request).tried(
        lambda given: keep_tracing(
            request.member, figure_id, tracing_id, kind=given["kind"], name=given["name"], key=given["part"]
        )
    )
    if faults:
        context = shown(request, tracing, {"keep": next(iter(faults.values()))})
        return render(request, "figures/trace/trace.html", context, status=422)
    address = redirect("figures:figure", studio=request.studio.slug, figure_id=tracing.figure_id)
    address["Location"] += f"?part={part.key}"
    return address


@require_POST
def forget_picture(request: Request, figure_id: UUID, reference_id: UUID) -> HttpResponse:
    queries.figure_of(request.studio, figure_id)
    drop_reference(request.member, figure_id, reference_id)
    return redirect("figures:figure", studio=request.studio.slug, figure_id=figure_id)


@require_GET
def pictures(request: Request, figure_id: UUID) -> HttpResponse:
    """The figure's own pictures, large."""
    figure = queries.figure_of(request.studio, figure_id)
    return render(request, "figures/trace/references.html", {"figure": figure, "references": figure.references.all()})


@require_POST
def add_picture(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    _, faults = PictureForm(request).tried(
        lambda given: add_reference(
            request.member, figure.pk, cleaned(request.FILES.get("photo"), request.studio), words=given["words"]
        )
    )
    if faults:
        return again(
            request, "figures/trace/references.html", {"figure": figure, "references": figure.references.all()}, faults
        )
    return redirect("figures:references", studio=request.studio.slug, figure_id=figure.pk)
