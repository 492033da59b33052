"""Parts pushed about in the drawing."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.views.decorators.http import require_POST

from wembit.core.pose.mesh import VIEWS
from wembit.web.fields import signed
from wembit.web.figures import queries
from wembit.web.figures.actions.nudge_part import MOST_DEGREES, MOST_MM, Push, nudge_part
from wembit.web.responses import tried

from .page import answer, moved

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request

LIMITS = {"right_mm": MOST_MM, "up_mm": MOST_MM, "deeper_mm": MOST_MM, "pitch": MOST_DEGREES, "yaw": MOST_DEGREES}


@require_POST
def nudge(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    found = queries.figure_of(request.studio, figure_id)
    view = request.POST.get("view", "side")
    given: dict[str, Any] = {
        "view": view if view in VIEWS else "side",
        "mirror": -1 if request.POST.get("mirror") == "-1" else 1,
    }
    for name, most in LIMITS.items():
        value = signed(request.POST.get(name) or "0")
        if value is None or abs(value) > most:
            return answer(request, found, key, {"part": f"A push goes at most {most:g} mm or degrees."})
        given[name] = value
    _, faults = tried(lambda: nudge_part(request.member, found.pk, key, Push(**given)))
    return answer(request, found, key, faults) if faults else moved(request, found, key)
