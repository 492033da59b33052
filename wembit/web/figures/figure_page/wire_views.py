"""The wire in a part."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.views.decorators.http import require_POST

from wembit.web.figures import queries
from wembit.web.figures.actions.set_wire import set_wire

from .forms import WireForm
from .page import answer, moved

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


@require_POST
def wire(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    form = WireForm(request)
    _, faults = form.tried(lambda _: set_wire(request.member, figure.pk, key, form.armature()))
    return answer(request, figure, key, faults) if faults else moved(request, figure, key)
