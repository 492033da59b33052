"""Parts pushed about in the drawing."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.views.decorators.http import require_POST

from wembit.web.figures import queries
from wembit.web.figures.actions.nudge_part import nudge_part

from .forms import PushForm
from .page import answer, moved

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


@require_POST
def nudge(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    figure = queries.figure_of(request.studio, figure_id)
    form = PushForm(request)
    _, faults = form.tried(lambda _: nudge_part(request.member, figure.pk, key, form.push()))
    return answer(request, figure, key, faults) if faults else moved(request, figure, key)
