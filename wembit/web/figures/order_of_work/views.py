"""The order of work of a figure, and the ways in which the studio works."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.shortcuts import redirect
from django.urls import reverse
from django.views.decorators.http import require_GET, require_POST

from wembit.core.craft.cautions import FIRST
from wembit.core.craft.schools import QUESTIONS
from wembit.core.work.step import minutes_range
from wembit.web.figures import queries
from wembit.web.figures.actions import change_order
from wembit.web.figures.actions.choose_way import choose_way
from wembit.web.figures.drawing.layout import pictures
from wembit.web.figures.to_core.estimating import Palette, plan_figure
from wembit.web.responses import page, tried
from wembit.web.studio.models import MAKER

from .forms import ChooseForm, SayForm, StepForm
from .order import chosen_way, general_ways, left_out, order_of, questions
from .states import forks_of, states
from .worked_parts import worked

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.figures.models import Figure
    from wembit.web.request import Request


WAIT_SHARE = 0.03  # of the ribbon, for whatever dries


def _found(figure: Figure) -> Any:
    version = queries.newest_version(figure)
    parts = queries.parts_of(version)
    palette = Palette.of(queries.colourway_of(version))
    return version, parts, palette, plan_figure(version, parts, palette)


def shown(request: Request, figure: Figure, picked: str = "", faults: dict | None = None) -> HttpResponse:
    version, parts, palette, plan = _found(figure)
    lines = order_of(version, parts, plan)
    open_, all_ = questions(version, parts, plan)
    at = next((n for n, other in enumerate(lines) if other.step.id == picked), None)
    line = None if at is None else lines[at]
    side = pictures(version, parts, palette)["side"]
    colours = {slot.name: palette.colour(slot.pk) for slot in version.slots.all()}
    minutes = sum(other.step.minutes for other in lines)
    forks = forks_of(open_, lines)
    laid = states(lines, side, worked(version, parts, plan), colours, minutes * WAIT_SHARE, forks)
    asking = request.POST.get("question", "") if faults else request.GET.get("ask", "")
    if asking not in all_:
        asking = forks[picked].question if line and picked in forks else ""
    context = {
        "figure": figure, "version": version, "lines": lines, "picked": picked, "line": line, "faults": faults or {},
        "left_out": left_out(version, parts, plan), "first_caution": FIRST,
        "minutes": minutes, "hands": minutes_range(minutes), "states": laid, "state": None if at is None else laid[at],
        "ribbon": sum(state.wide + state.waits for state in laid), "general": general_ways(lines),
        "before": lines[at - 1].step.id if at else "",
        "following": lines[at + 1].step.id if at is not None and at + 1 < len(lines) else "",
        "waits": sum(other.step.wait_hours for other in lines),
        "side": side,
        "asking": asking, "question": QUESTIONS.get(asking), "way": chosen_way(version, asking) if asking else "",
        "holds": [("studio", "the whole studio"), ("figure", "only this figure"),
                  *((f"part:{part.key}", f"only the {part.name}") for part in parts if part.shape["kind"] != "none")],
        "is_open": asking in open_, "asked": [(key, QUESTIONS[key].words, QUESTIONS[key].ways[chosen_way(version, key)],
                                               key in open_) for key in all_],
    }  # fmt: skip
    if faults:
        context["kept"] = request.POST
    return page(
        request,
        "figures/order_of_work/order.html",
        "figures/order_of_work/_order.html",
        context,
        422 if faults else 200,
    )


@require_GET
def order(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    return shown(request, figure, request.GET.get("step", ""))


def _ids(figure: Figure) -> list[str]:
    version, parts, _, plan = _found(figure)
    return [line.step.id for line in order_of(version, parts, plan)]


def _back(request: Request, figure: Figure, picked: str = "") -> HttpResponse:
    if request.htmx:
        return shown(request, figure, picked)
    address = reverse("figures:order", args=[request.studio.slug, figure.pk])
    return redirect(f"{address}?step={picked}" if picked else address)


@require_POST
def step(request: Request, figure_id: UUID) -> HttpResponse:
    """Say, move, leave out or take in a step, by the button that was pressed."""
    figure = queries.figure_of(request.studio, figure_id)
    request.member.must_be(MAKER)
    form = StepForm(request)
    if not form.is_valid():
        return shown(request, figure, "", form.faults)
    given, member, ids = form.cleaned_data, request.member, _ids(figure)
    key = given["step"]
    faults: dict = {}
    match given["do"]:
        case "earlier":
            change_order.move_step(member, figure.pk, key, ids, -1)
        case "later":
            change_order.move_step(member, figure.pk, key, ids, 1)
        case "off":
            change_order.leave_out_step(member, figure.pk, key)
            key = ""
        case "on":
            change_order.take_in_step(member, figure.pk, key)
        case "add":
            made, faults = tried(lambda: change_order.add_step(member, figure.pk, key, ids, title=given["new_title"]))
            key = made[1] if made else key
        case _ if key not in ids:
            faults = {"title": "That step is not there any more."}
        case _:
            _, faults = SayForm(request).tried(lambda said: change_order.say_step(member, figure.pk, key, **said))
    return shown(request, figure, key, faults) if faults else _back(request, figure, key)


@require_POST
def choose(request: Request, figure_id: UUID) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)

    def do(given: dict[str, Any]) -> Any:
        holds, _, part = given["holds"].partition(":")
        return choose_way(
            request.member, figure.pk, given["question"], given["way"], only_here=holds == "figure", part=part
        )

    _, faults = ChooseForm(request).tried(do)
    picked = request.POST.get("step", "")
    return shown(request, figure, picked, faults) if faults else _back(request, figure, picked)
