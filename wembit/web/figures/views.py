"""The figures, one figure and its parts."""

from __future__ import annotations

from django import forms
from django.contrib import messages
from django.shortcuts import redirect, render
from django.template.loader import render_to_string
from django.urls import reverse
from django.views.decorators.http import require_GET, require_http_methods, require_POST
from django_htmx.http import reselect, reswap, retarget

from wembit.core.fibres import FIRMNESS_WORDS
from wembit.core.placing import place, standing_angles
from wembit.web.answers import again, page, tried
from wembit.web.fields import length_field
from wembit.web.pictures import cleaned
from wembit.web.stash.models import FIBRE
from wembit.web.stash.queries import items

from . import queries
from .actions.add_part import add_part
from .actions.change_part import change_part
from .actions.choose_fibre import choose_fibre
from .actions.copy_figure import copy_figure
from .actions.describe_figure import describe_figure
from .actions.make_figure import make_figure
from .actions.remove_part import remove_part
from .actions.set_layers import set_layers
from .estimating import Palette, plan_figure, sums
from .kinds import KINDS
from .laying_out import pictures, placed_part
from .reading import FACES, ROLES, number, read_layers, read_part
from .sizes import CLOSED, sizes
from .sizes import KINDS as SHAPES


@require_GET
def home(request):
    """All figures as small drawings, all to one scale; kept until something changes."""
    return render(request, "figures/figures.html", {"herd": request.studio.kept("herd", lambda: herd(request.studio))})


def herd(studio) -> str:
    rows = queries.figures(studio)
    ways = {figure.pk: next(iter(figure.newest.colourways.all()), None) for figure in rows}
    palettes = queries.palettes(studio, [way for way in ways.values() if way])
    for figure in rows:
        parts = list(figure.newest.parts.all())
        palette = palettes.get(ways[figure.pk] and ways[figure.pk].pk, Palette({}, {}))
        figure.side = pictures(figure.newest, parts, palette)["side"]
        figure.plan = plan_figure(figure.newest, parts, palette)
    return render_to_string("figures/_herd.html", {"figures": rows, "scale": 1.35, "studio": studio})


@require_http_methods(["GET", "POST"])
def new(request):
    if request.method == "GET":
        return render(request, "figures/new.html")
    figure, faults = tried(
        lambda: make_figure(request.member, request.POST.get("name", "")[:80], story=request.POST.get("story", ""))
    )
    if faults:
        return again(request, "figures/new.html", {}, faults)
    return redirect("figures:figure", studio=request.studio.slug, figure_id=figure.pk)


def fibre_options(studio) -> str:
    """The list of fibres to choose from, each with what is free of it; the same for every slot."""
    fibres = [each for each in items(studio) if each.kind == FIBRE]
    return render_to_string("figures/_fibre_options.html", {"fibres": fibres, "studio": studio})


def figure_context(request, figure, key: str = "") -> dict:
    version = queries.newest_version(figure)
    parts = queries.parts_of(version)
    colourway = queries.colourway_of(version)
    palette = Palette.of(colourway)
    plan = plan_figure(version, parts, palette)
    context = {
        "figure": figure,
        "version": version,
        "parts": parts,
        "plan": plan,
        "sums": sums(plan),
        "views": list(pictures(version, parts, palette).values()),
        "slots": [(slot, palette.items.get(slot.pk), palette.colour(slot.pk)) for slot in version.slots.all()],
        "fibre_options": request.studio.kept("fibre-options", lambda: fibre_options(request.studio)),
        "kinds": [*KINDS, "eye"],
        "picked": key,
    }
    chosen = next((each for each in plan.parts if each.part.key == key), None)
    if chosen:
        context |= part_context(chosen, parts, version)
    return context


def part_context(chosen, parts, version) -> dict:
    part = chosen.part
    pieces = place([placed_part(each, version.scale) for each in parts]) if part.seat else []
    piece = next((each for each in pieces if each.name == part.key), None)
    pitch, yaw = standing_angles(piece) if piece is not None else (0.0, 0.0)
    rows = [
        {"role": layer.role, "slot": layer.slot.name, "over": layer.over and layer.over.name, "rule": layer.rule}
        for layer in part.layers.all()
    ]
    return {
        "part": part,
        "part_plan": chosen,
        "sizes": sizes(part.shape),
        "shape_word": SHAPES[part.shape["kind"]][0],
        "shapes": [(kind, SHAPES[kind][0]) for kind in CLOSED],
        "can_reshape": part.shape["kind"] in CLOSED,
        "firmnesses": list(FIRMNESS_WORDS.items()),
        "hosts": [(each.key, each.name) for each in parts if each.key != part.key],
        "faces": FACES,
        "pitch": round(pitch),
        "yaw": round(yaw),
        "layer_rows": rows,
        "roles": list(ROLES.items()),
        "slot_names": [slot.name for slot in version.slots.all()],
        "grams": chosen.grams,
    }


def answer(request, figure, key: str = "", faults: dict | None = None):
    """The figure with a part picked, as a page or (for htmx) as the stage and tray."""
    context = figure_context(request, figure, key)
    if faults:
        context |= {"faults": faults, "kept": request.POST}
    return page(request, "figures/figure.html", "figures/_stage.html", context, 422 if faults else 200)


def whole(response):
    """The answer put in place of picture and tray, where the form asked for the picture alone."""
    return retarget(reswap(reselect(response, "#picture, #tray"), "innerHTML"), "#stage")


@require_GET
def figure(request, figure_id):
    found = queries.figure_of(request.studio, figure_id)
    return answer(request, found, request.GET.get("part", ""))


def moved(request, figure, key: str = ""):
    """After a change: the stage for htmx, else the page anew."""
    if request.htmx:
        return answer(request, figure, key)
    address = reverse("figures:figure", args=[request.studio.slug, figure.pk])
    return redirect(f"{address}?part={key}" if key else address)


@require_POST
def new_part(request, figure_id):
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
def part(request, figure_id, key):
    """Change sizes, firmness, count, seat of a part: only the fields that came are changed."""
    found = queries.figure_of(request.studio, figure_id)
    now = queries.part_of(queries.newest_version(found), key)
    changes, faults = read_part(request, now)
    if not faults:
        _, faults = tried(lambda: change_part(request.member, found.pk, key, changes))
    if faults:
        return whole(answer(request, found, key, faults))
    reshaped = request.POST.get("shape", now.shape["kind"]) != now.shape["kind"]
    response = moved(request, found, key)
    return whole(response) if reshaped or "mended" in request.POST else response


@require_POST
def layers(request, figure_id, key):
    """Replace the layers of a part by the rows that came."""
    found = queries.figure_of(request.studio, figure_id)
    rows, faults = read_layers(request)
    if not faults:
        _, faults = tried(lambda: set_layers(request.member, found.pk, key, rows))
        faults = {"layers": next(iter(faults.values()))} if faults else {}
    return answer(request, found, key, faults) if faults else moved(request, found, key)


@require_POST
def drop_part(request, figure_id, key):
    found = queries.figure_of(request.studio, figure_id)
    _, faults = tried(lambda: remove_part(request.member, found.pk, key))
    return answer(request, found, key, {"part": next(iter(faults.values()))}) if faults else moved(request, found)


@require_POST
def fibre(request, figure_id):
    """Choose the fibre of a colour slot."""
    found = queries.figure_of(request.studio, figure_id)
    try:
        item = forms.UUIDField().clean(request.POST.get("item", ""))
    except forms.ValidationError:
        return whole(answer(request, found, request.POST.get("part", ""), {"fibre": "Choose a fibre of the shelf."}))
    choose_fibre(request.member, found.pk, request.POST.get("slot", ""), item)
    return moved(request, found, request.POST.get("part", ""))


@require_POST
def describe(request, figure_id):
    found = queries.figure_of(request.studio, figure_id)

    def do():
        text = request.POST.get("scale", "")
        scale = number(text, "the size") if text.strip() else None
        return describe_figure(
            request.member,
            found.pk,
            name=request.POST.get("name", "")[:80],
            story=request.POST.get("story", "")[:2000],
            scale=scale,
            photo=cleaned(request.FILES.get("photo"), request.studio),
        )

    try:
        _, faults = tried(do)
    except ValueError as fault:
        faults = {"scale": str(fault)}
    if faults:
        return answer(request, found, "", faults)
    messages.success(request, "Kept.")
    return redirect("figures:figure", studio=request.studio.slug, figure_id=found.pk)


@require_POST
def copy(request, figure_id):
    found = queries.figure_of(request.studio, figure_id)
    made, faults = tried(lambda: copy_figure(request.member, found.pk, request.POST.get("copy_name", "")[:80]))
    if faults:
        return answer(request, found, "", {"copy_name": next(iter(faults.values()))})
    messages.success(request, f"{made.name} is a copy of {found.name}.")
    return redirect("figures:figure", studio=request.studio.slug, figure_id=made.pk)
