"""The figures, one figure and its parts."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django import forms
from django.contrib import messages
from django.shortcuts import redirect, render
from django.template.loader import render_to_string
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from wembit.web.fields import length_field
from wembit.web.figures import queries
from wembit.web.figures.actions.add_part import add_part
from wembit.web.figures.actions.change_part import change_part
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.actions.copy_figure import copy_figure
from wembit.web.figures.actions.describe_figure import describe_figure
from wembit.web.figures.actions.make_figure import make_figure
from wembit.web.figures.actions.remove_part import remove_part
from wembit.web.figures.drawing.layout import pictures
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.responses import again, tried
from wembit.web.uploads import cleaned

from .page import answer, moved, whole
from .part_form import read_part

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio


@require_GET
def home(request: Request) -> HttpResponse:
    """All figures as small drawings, all to one scale; kept until something changes."""
    drawn = request.studio.cached_until_change("herd", lambda: herd(request.studio))
    return render(request, "figures/figure_page/figures.html", {"herd": drawn})


def herd(studio: Studio) -> str:
    rows = queries.figures(studio)
    newest = {figure.pk: figure.newest for figure in rows if figure.newest}
    ways = {pk: next(iter(version.colourways.all()), None) for pk, version in newest.items()}
    palettes = queries.palettes(studio, [way for way in ways.values() if way])
    for figure in rows:
        version, way = newest[figure.pk], ways[figure.pk]
        parts, palette = list(version.parts.all()), palettes[way.pk] if way else Palette({}, {})
        figure.side = pictures(version, parts, palette)["side"]
        figure.plan = plan_figure(version, parts, palette)
    return render_to_string("figures/figure_page/_herd.html", {"figures": rows, "scale": 1.35, "studio": studio})


@require_http_methods(["GET", "POST"])
def new(request: Request) -> HttpResponse:
    if request.method == "GET":
        return render(request, "figures/figure_page/new.html")
    figure, faults = tried(
        lambda: make_figure(request.member, request.POST.get("name", "")[:80], story=request.POST.get("story", ""))
    )
    if faults:
        return again(request, "figures/figure_page/new.html", {}, faults)
    return redirect("figures:figure", studio=request.studio.slug, figure_id=figure.pk)


@require_GET
def figure(request: Request, figure_id: UUID) -> HttpResponse:
    found = queries.figure_of(request.studio, figure_id)
    layer = request.GET.get("layer", "")
    return answer(
        request, found, request.GET.get("part", ""), layer=int(layer) if layer.isdecimal() and len(layer) < 4 else -1
    )


@require_POST
def new_part(request: Request, figure_id: UUID) -> HttpResponse:
    found = queries.figure_of(request.studio, figure_id)
    try:
        length = length_field(request.studio).clean(request.POST.get("length", ""))
    except forms.ValidationError as fault:
        return answer(request, found, "", {"length": fault.messages[0]})
    part, faults = tried(
        lambda: add_part(
            request.member,
            found.pk,
            request.POST.get("kind", ""),
            float(length),
            name=request.POST.get("name", "")[:40],
        )
    )
    return answer(request, found, "", faults) if faults else moved(request, found, part.key)


@require_POST
def part(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    """Change sizes, firmness, count, seat of a part: only the fields that came are changed."""
    found = queries.figure_of(request.studio, figure_id)
    now = queries.part_of(queries.newest_version(found), key)
    changes, faults = read_part(request, now)
    if not faults:
        habit = (
            changes.pop("loose_end_mm") if "habit" in request.POST and changes.get("loose_end_mm") is not None else None
        )
        _, faults = tried(lambda: change_part(request.member, found.pk, key, changes, habit_mm=habit))
    if faults:
        return whole(answer(request, found, key, faults))
    reshaped = request.POST.get("shape", now.shape["kind"]) != now.shape["kind"]
    response = moved(request, found, key)
    return whole(response) if reshaped or "mended" in request.POST else response


@require_POST
def drop_part(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    found = queries.figure_of(request.studio, figure_id)
    _, faults = tried(lambda: remove_part(request.member, found.pk, key))
    return answer(request, found, key, {"part": next(iter(faults.values()))}) if faults else moved(request, found)


@require_POST
def fibre(request: Request, figure_id: UUID) -> HttpResponse:
    """Choose the fibre of a colour slot."""
    found = queries.figure_of(request.studio, figure_id)
    try:
        item = forms.UUIDField().clean(request.POST.get("item", ""))
    except forms.ValidationError:
        return whole(answer(request, found, request.POST.get("part", ""), {"fibre": "Choose a fibre of the shelf."}))
    choose_fibre(request.member, found.pk, request.POST.get("slot", ""), item)
    return moved(request, found, request.POST.get("part", ""))


@require_POST
def describe(request: Request, figure_id: UUID) -> HttpResponse:
    found = queries.figure_of(request.studio, figure_id)

    _, faults = tried(
        lambda: describe_figure(
            request.member,
            found.pk,
            name=request.POST.get("name", "")[:80],
            story=request.POST.get("story", "")[:2000],
            photo=cleaned(request.FILES.get("photo"), request.studio),
        )
    )
    if faults:
        return answer(request, found, "", faults)
    messages.success(request, "Kept.")
    return redirect("figures:figure", studio=request.studio.slug, figure_id=found.pk)


@require_POST
def copy(request: Request, figure_id: UUID) -> HttpResponse:
    found = queries.figure_of(request.studio, figure_id)
    made, faults = tried(lambda: copy_figure(request.member, found.pk, request.POST.get("copy_name", "")[:80]))
    if faults:
        return answer(request, found, "", {"copy_name": next(iter(faults.values()))})
    messages.success(request, f"{made.name} is a copy of {found.name}.")
    return redirect("figures:figure", studio=request.studio.slug, figure_id=made.pk)
