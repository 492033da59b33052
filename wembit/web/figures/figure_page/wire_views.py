"""The wire in a part."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django import forms
from django.views.decorators.http import require_POST

from wembit.core.craft.armature import PIPE_CLEANER, WIRE
from wembit.web.fields import length_field, signed
from wembit.web.figures import queries
from wembit.web.figures.actions.set_wire import set_wire
from wembit.web.responses import tried

from .page import answer, moved

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request

LENGTHS = {
    "gauge_mm": (0.1, 10), "bare_mm": (0, 500), "loop_mm": (0, 500), "back_mm": (0, 2000), "through_mm": (0, 2000),
}  # fmt: skip


@require_POST
def wire(request: Request, figure_id: UUID, key: str) -> HttpResponse:
    found = queries.figure_of(request.studio, figure_id)
    given, told, faults = request.POST, dict[str, Any](), dict[str, str]()
    if "no_wire" not in given:
        for name, (least, most) in LENGTHS.items():
            if given.get(name, "").strip():
                try:
                    told[name] = float(length_field(request.studio, least=least, most=most).clean(given[name]))
                except forms.ValidationError as fault:
                    faults[name] = fault.messages[0]
        twist = signed(given.get("twist", "").strip() or "0")
        if twist is None or not 0 <= twist <= 200:
            faults["twist"] = "Write a number between 0 and 200."
        elif twist:
            told["twist"] = twist / 100
        told["doubled"], told["former"] = "doubled" in given, "former" in given
        told["kind"] = PIPE_CLEANER if given.get("wire_kind") == PIPE_CLEANER else WIRE
    if not faults:
        _, faults = tried(lambda: set_wire(request.member, found.pk, key, told))
    return answer(request, found, key, faults) if faults else moved(request, found, key)
