"""The layers of a part."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.http import Http404
from django.views.decorators.http import require_POST

from wembit.core.pose.gaze import VIEWS
from wembit.web.figures import queries
from wembit.web.figures.actions.add_layer import add_layer
from wembit.web.figures.actions.change_layer import change_layer
from wembit.web.figures.actions.draw_marking import draw_marking
from wembit.web.figures.actions.raise_layer import raise_layer
from wembit.web.figures.actions.remove_layer import remove_layer
from wembit.web.responses import tried

from .forms import MarkingForm, NewLayerForm
from .layer_form import LayerForm
from .page import answer, beside, drawn_at, moved, whole

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.figures.models import Figure
    from wembit.web.request import Request


@require_POST
def new(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    position, faults = NewLayerForm(request).tried(
        lambda given: add_layer(request.member, figure.pk, key, given["role"], given["new_slot"])
    )
    if faults:
        return answer(request, figure, key, {"new_slot": faults.pop("slot", ""), **faults})
    return moved(request, figure, key, position)


@require_POST
def mark(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    """A marking where a finger went over the drawing."""
    figure = queries.figure_of(request.studio, figure_id)
    form = MarkingForm(request)
    position, faults = form.tried(
        lambda given: draw_marking(
            request.member, figure.pk, key, given["mark_slot"], VIEWS[given["view"] or "side"], form.points(),
            both=form.has("both"),
        )
    )  # fmt: skip
    if faults:
        return answer(request, figure, key, {"mark_slot": faults.pop("slot", ""), **faults})
    return moved(request, figure, key, position)


@require_POST
def change(request: Request, figure_id: UUID, key: str, position: int) -> HttpResponse:
    """Keep what the form of a layer says; only the fields that came are changed."""
    figure = queries.figure_of(request.studio, figure_id)
    layer = _layer(figure, key, position)
    form = LayerForm(request, layer)
    _, faults = form.tried(
        lambda _: change_layer(
            request.member, figure.pk, key, position, slot=form.slot_name(), over=form.over_name(), rule=form.rule(),
            drawn_at=drawn_at(request),
        )
    )  # fmt: skip
    if faults:
        return whole(answer(request, figure, key, beside(faults, form, "layers"), position))
    response = moved(request, figure, key, position)
    reshaped = set(form.rule()) != set(layer.rule) or form.slot_name() != layer.slot.name
    return whole(response) if reshaped or form.has("mended") else response


@require_POST
def later(request: Request, figure_id: UUID, key: str, position: int) -> HttpResponse:
    """Lay it after the next one."""
    figure = queries.figure_of(request.studio, figure_id)
    last = len(_layers(figure, key)) - 1
    raise_layer(request.member, figure.pk, key, position)
    return moved(request, figure, key, min(position + 1, last))


@require_POST
def drop(request: Request, figure_id: UUID, key: str, position: int) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    _, faults = tried(lambda: remove_layer(request.member, figure.pk, key, position))
    return answer(request, figure, key, faults, position) if faults else moved(request, figure, key)


def _layers(figure: Figure, key: str) -> list:
    return list(queries.part_of(queries.newest_version(figure), key).layers.all())


def _layer(figure: Figure, key: str, position: int) -> Any:
    layers = _layers(figure, key)
    if position >= len(layers):
        raise Http404
    return layers[position]
