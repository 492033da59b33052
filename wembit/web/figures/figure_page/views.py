"""The figures, one figure and its parts."""

from __future__ import annotations

from typing import TYPE_CHECKING
from urllib.parse import urlencode

from django.contrib import messages
from django.shortcuts import redirect
from django.template.loader import render_to_string
from django.views.decorators.http import require_GET, require_POST

from wembit.web.asked import whole_number_in, words_in
from wembit.web.figures import queries
from wembit.web.figures.actions.add_part import add_part
from wembit.web.figures.actions.change_part import change_part
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.actions.copy_figure import copy_figure
from wembit.web.figures.actions.describe_figure import describe_figure
from wembit.web.figures.actions.remove_part import remove_part
from wembit.web.figures.drawing.layout import pictures
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.once import once
from wembit.web.responses import page, tried
from wembit.web.uploads import cleaned

from .forms import CopyForm, FibreForm, FigureForm, NewPartForm, touch_in
from .page import answer, beside, drawn_at, moved, whole
from .part_form import PartForm

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

SHOWN = 10  # figures drawn at once; more come as one scrolls


@require_GET
def home(request: Request) -> HttpResponse:
    """The figures as small drawings, all to one scale, a few rows at once; kept until something changes."""
    words, start = words_in(request.GET.get("words", "")), whole_number_in(request.GET.get("from", "")) or 0
    if words:
        drawn = herd(request.studio, words, start)
    else:
        drawn = request.studio.cached_until_change(f"herd:{start}", lambda: herd(request.studio, "", start))
    count = queries.figure_count(request.studio)
    context = {"herd": drawn, "words": words, "many": count > SHOWN, "is_any": count > 0}
    return page(request, "figures/figure_page/figures.html", "figures/figure_page/_more.html", context)


def herd(studio: Studio, words: str, start: int) -> str:
    """The figures from `start` on whose names hold these words, as markup, with the way to the next ones."""
    rows = queries.figures(studio, words, start, SHOWN)
    newest = {figure.pk: figure.newest for figure in rows if figure.newest}
    ways = {pk: next(iter(version.colourways.all()), None) for pk, version in newest.items()}
    palettes = queries.palettes(studio, [way for way in ways.values() if way])
    for figure in rows:
        version, way = newest[figure.pk], ways[figure.pk]
        parts, palette = list(version.parts.all()), palettes[way.pk] if way else Palette({}, {})
        figure.side = pictures(version, parts, palette)["side"]
        figure.plan = plan_figure(version, parts, palette)
    beyond = max(queries.figure_count(studio, words) - start - SHOWN, 0)
    rest = urlencode({"words": words, "from": start + SHOWN})
    context = {"figures": rows, "scale": 1.35, "studio": studio, "beyond": beyond, "rest": rest, "words": words}
    return render_to_string("figures/figure_page/_herd.html", context)


@require_GET
def figure(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    layer = whole_number_in(request.GET.get("layer", ""))
    return answer(request, figure, request.GET.get("part", ""), layer=-1 if layer is None else layer)


@require_POST
def new_part(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    part, faults = NewPartForm(request).tried(
        lambda given: add_part(
            request.member, figure.pk, given["kind"], float(given["length"]), name=given["name"], touch=touch_in(given)
        )
    )
    return answer(request, figure, "", faults) if faults else moved(request, figure, part.key)


@require_POST
def part(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    """Change sizes, firmness, count, seat of a part: only the fields that came are changed."""
    figure = queries.figure_of(request.studio, figure_id)
    now = queries.part_of(queries.newest_version(figure), key)
    form = PartForm(request, now)
    _, faults = form.tried(
        lambda _: change_part(
            request.member, figure.pk, key, form.changes(), habit_mm=form.habit_mm(), drawn_at=drawn_at(request)
        )
    )
    if faults:
        return whole(answer(request, figure, key, beside(faults, form, "part")))
    response = moved(request, figure, key)
    return whole(response) if form.has_other_shape or form.has("mended") else response


@require_POST
def drop_part(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    _, faults = tried(lambda: remove_part(request.member, figure.pk, key))
    return answer(request, figure, key, {"part": next(iter(faults.values()))}) if faults else moved(request, figure)


@require_POST
def fibre(request: Request, figure_id: UUID) -> HttpResponse:
    """Choose the fibre of a colour slot."""
    figure = queries.figure_of(request.studio, figure_id)
    form = FibreForm(request)
    _, faults = form.tried(lambda given: choose_fibre(request.member, figure.pk, given["slot"], given["item"]))
    part = form.cleaned_data.get("part", "")
    return whole(answer(request, figure, part, faults)) if faults else moved(request, figure, part)


@require_POST
def describe(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)

    _, faults = FigureForm(request).tried(
        lambda given: describe_figure(
            request.member,
            figure.pk,
            name=given["name"],
            story=given["story"],
            photo=cleaned(request.FILES.get("photo"), request.studio),
        )
    )
    if faults:
        return answer(request, figure, "", faults)
    messages.success(request, "Kept.")
    return redirect("figures:figure", studio=request.studio.slug, figure_id=figure.pk)


@require_POST
@once
def copy(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    made, faults = CopyForm(request).tried(lambda given: copy_figure(request.member, figure.pk, given["copy_name"]))
    if faults:
        return answer(request, figure, "", {"copy_name": next(iter(faults.values()))})
    messages.success(request, f"{made.name} is a copy of {figure.name}.")
    return redirect("figures:figure", studio=request.studio.slug, figure_id=made.pk)
