"""A figure to begin: which body, how large, in which proportions."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.http import Http404
from django.shortcuts import redirect, render
from django.views.decorators.http import require_http_methods, require_POST

from wembit.core.body_plans.every_plan import PLANS
from wembit.core.body_plans.plan import HIGH
from wembit.core.body_plans.proportions import MOST, proportions_of
from wembit.core.drawing.scale_objects import LENGTH_MM
from wembit.core.errors import BadInput
from wembit.web import numbers
from wembit.web.errors import Refusal
from wembit.web.figures import queries
from wembit.web.figures.actions.begin_figure import begin_figure
from wembit.web.figures.actions.make_figure import make_figure
from wembit.web.figures.actions.take_in_figure import take_in_figure
from wembit.web.figures.drawing.layout import Picture, pictures, side_by_side
from wembit.web.figures.figure_page.forms import FigureForm
from wembit.web.figures.files.figure_file import read_file
from wembit.web.figures.order_of_work.order import order_of
from wembit.web.once import once
from wembit.web.responses import again, page, tried
from wembit.web.studio.models import MAKER

from .draft_at_size import Begun, Worked, at_grams, at_length, from_figure, from_plan
from .forms import SMALLEST_MM, BeginForm
from .thumbnails import thumbnail

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request

OWN = 12  # figures of one's own that are offered at once


@require_http_methods(["GET", "POST"])
@once
def new(request: Request) -> HttpResponse:
    """The bodies to begin with; a name alone begins an empty table."""
    if request.method == "GET":
        return render(request, "figures/begin/new.html", _offered(request))
    made, faults = FigureForm(request).tried(
        lambda given: make_figure(request.member, given["name"], story=given["story"])
    )
    if faults:
        return again(request, "figures/begin/new.html", _offered(request), faults)
    return redirect("figures:figure", studio=request.studio.slug, figure_id=made.pk)


@require_POST
def take_in(request: Request) -> HttpResponse:
    request.member.must_be(MAKER)
    upload = request.FILES.get("file")
    content = upload.read(3_000_000) if upload else b""
    figure, faults = tried(lambda: take_in_figure(request.member, read_file(content)))
    if faults:
        return again(request, "figures/begin/new.html", _offered(request), faults)
    return redirect("figures:figure", studio=request.studio.slug, figure_id=figure.pk)


def _offered(request: Request) -> dict[str, Any]:
    own = queries.figures(request.studio, "", 0, OWN)
    return {"groups": _groups(), "own": [figure for figure in own if figure.newest and figure.newest.parts.all()]}


def _groups() -> dict[str, list[tuple[Any, str]]]:
    """The plans by their groups, each with its drawing."""
    groups: dict[str, list[tuple[Any, str]]] = {}
    for plan in PLANS.values():
        groups.setdefault(plan.group, []).append((plan, thumbnail(plan.key)))
    return groups


@require_http_methods(["GET", "POST"])
def plan(request: Request, plan_key: str) -> HttpResponse:
    """A body plan, drawn as it was asked for, or begun."""
    if plan_key not in PLANS:
        raise Http404
    given = request.POST if request.method == "POST" else request.GET
    return _answer(request, from_plan(request.studio, PLANS[plan_key], given.get("letters")))


@require_http_methods(["GET", "POST"])
def like(request: Request, figure_id: UUID) -> HttpResponse:
    """Another figure like one there is, in other proportions."""
    begun = from_figure(queries.figure_of(request.studio, figure_id))
    if not begun.parts:
        raise Http404
    return _answer(request, begun)


def _answer(request: Request, begun: Begun) -> HttpResponse:
    if request.method == "POST" and "look" not in request.POST:
        return _begin(request, begun)
    request.saved_nothing = True
    given = request.POST if request.method == "POST" else request.GET
    form = BeginForm(request, given, proportions_of(begun.parts))
    form.is_valid()
    worked, faults = _worked(request, begun, form)
    if request.htmx.target == "drawn":  # while a slider moves: what it takes follows when it rests
        context = {"begun": begun, "views": _views(worked), "faults": faults}
        return render(request, "figures/begin/_drawn.html", context, status=422 if faults else 200)
    context = _context(request, begun, form, worked) | {"faults": faults, "kept": given}
    return page(
        request, "figures/begin/begin.html", "figures/begin/_worked.html", context, status=422 if faults else 200
    )


@once
def _begin(request: Request, begun: Begun) -> HttpResponse:
    form = BeginForm(request, request.POST, proportions_of(begun.parts))
    form.is_valid()
    worked, faults = _worked(request, begun, form)
    if worked and not faults:
        figure, faults = tried(
            lambda: begin_figure(
                request.member,
                form.cleaned_data["name"],
                worked.draft,
                begun.items,
                begun.colours,
                queries.newest_version(begun.like) if begun.like else None,
            )
        )
        if not faults:
            return redirect("figures:figure", studio=request.studio.slug, figure_id=figure.pk)
    return again(request, "figures/begin/begin.html", _context(request, begun, form, worked), faults)


def _worked(request: Request, begun: Begun, form: BeginForm) -> tuple[Worked | None, dict[str, str]]:
    """The figure as the form asks for it, and what is to be changed in the form."""
    given, steps = form.cleaned_data, form.steps()
    faults = form.faults | ({"letters": begun.unread} if begun.unread else {})
    try:
        if given.get("grams"):
            grams, least = float(given["grams"]), at_length(request.studio, begun, steps, SMALLEST_MM)
            if least.plan.all.p50 > grams:
                words = " ".join(numbers.grams(least.plan.all.p50, request.studio))
                return least, {**faults, "grams": f"That is too little: at {SMALLEST_MM:g} mm it takes {words}."}
            return at_grams(request.studio, begun, steps, grams), faults
        size = float(given.get("size") or begun.usual_mm)
        return at_length(request.studio, begun, steps, size), faults
    except BadInput as fault:
        return None, {**faults, "": f"It cannot be made so: {fault.what}. Change its proportions."}
    except Refusal as fault:
        return None, {**faults, "": fault.message}


def _context(request: Request, begun: Begun, form: BeginForm, worked: Worked | None) -> dict[str, Any]:
    steps = form.steps()
    context: dict[str, Any] = {
        "begun": begun,
        "high": begun.measure == HIGH,
        "size": numbers.field_mm(begun.usual_mm, request.studio),
        "hand": numbers.field_mm(LENGTH_MM, request.studio),
        "named": queries.free_name(request.studio, begun.name[:1].upper() + begun.name[1:]),
        "sliders": [(each, steps.get(each.key, 0)) for each in form.proportions],
        "most": MOST,
        "address": request.path,
    }
    if worked is None or worked.plan.fault:
        return context
    made = worked.draft
    lines = order_of(made.version, made.parts, worked.plan)
    return context | {
        "views": _views(worked),
        "extent": worked.extent,
        "plan": worked.plan,
        "sums": _by_wool(worked),
        "low": sum(line.low_min for line in lines),
        "most_minutes": sum(line.high_min for line in lines),
    }


def _views(worked: Worked | None) -> list[Picture]:
    """From the side and from the front, on one ground."""
    if worked is None:
        return []
    views = pictures(worked.draft.version, worked.draft.parts, worked.palette)
    return [] if views["side"].fault else side_by_side(views["side"], views["front"])


def _by_wool(worked: Worked) -> list[dict[str, Any]]:
    """What it takes of each slot, with its colour and its wool."""
    grams: dict[str, float] = {}
    for each in worked.plan.layers():
        grams[each.layer.slot.name] = grams.get(each.layer.slot.name, 0.0) + each.grams.middle
    slots = worked.draft.slots
    return [
        {
            "slot": name,
            "colour": worked.palette.colour(slots[name].pk),
            "item": worked.palette.items.get(slots[name].pk),
            "grams": grams[name],
        }
        for name in sorted(grams, key=lambda name: -grams[name])
    ]
