"""What can be done about a wool that is short for a project, and the press that does it."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.web.asked import whole_number_in
from wembit.web.decimals import decimal
from wembit.web.errors import Refusal
from wembit.web.idempotency import press_of
from wembit.web.plan.queries import CRUMB, answered_by, need_of, project_of, stand_ins_of
from wembit.web.responses import again, refused, tried
from wembit.web.restock.actions.accept_answer import take_answer_back
from wembit.web.stash.models import ZERO
from wembit.web.studio.models import MAKER

from .accepting import accepted
from .answering import answers
from .forms import AcceptForm

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


def answers_context(request: Request, project_id: UUID, item_id: UUID) -> dict:
    offered = answers(
        request.studio,
        need_of(request.studio, project_id, item_id),
        whole_number_in(request.GET.get("count", "")),
        only=bool(request.GET.get("only")),
    )
    project = project_of(request.studio, project_id)
    standing = [stand_in for stand_in in stand_ins_of(project) if stand_in.old_id == item_id]
    return {"found": offered, "project": project, "item": offered.line.need.item, "standing": standing}


@require_GET
def short(request: Request, project_id: UUID, item_id: UUID) -> HttpResponse:
    """Three answers, the rest behind them."""
    return render(request, "restock/answers/answers.html", answers_context(request, project_id, item_id))


@require_POST
def accept(request: Request, project_id: UUID, item_id: UUID) -> HttpResponse:
    """Let another wool stand in, card a blend that does, or lay one thinly under."""
    request.member.must_be(MAKER)

    def do(given: dict[str, Any]) -> Any:
        press = press_of(request)
        _nothing_since(request, project_id, item_id, given, press.key)
        return accepted(request.member, project_id, item_id, given, press)

    made, faults = AcceptForm(request).tried(do)
    if faults:
        faults = {"anyway" if key == "anyway" else "": words for key, words in faults.items()}
        return again(request, "restock/answers/answers.html", answers_context(request, project_id, item_id), faults)
    does = "lies thinly under" if made.under else "stands in for"
    messages.success(request, f"{made.new.name} {does} {made.old.name}.")
    return redirect("plan:project", studio=request.studio.slug, project_id=project_id)


def _nothing_since(request: Request, project_id: UUID, item_id: UUID, given: dict[str, Any], key: str) -> None:
    """Raises `Refusal` where somebody has answered the shortage since the page was drawn."""
    if given["short"] is None or answered_by(request.studio, key):
        return
    lines = need_of(request.studio, project_id, item_id)
    short = next((line.short for line in lines if line.need.seen == given["seen"]), ZERO)
    if short + CRUMB < decimal(given["short"]):
        raise Refusal("This was answered meanwhile: less is short now than this page says. Look at the answers again.")


@require_POST
def take_back(request: Request, stand_in_id: UUID) -> HttpResponse:
    made, faults = tried(lambda: take_answer_back(request.member, stand_in_id))
    if faults:
        refused(request, faults)
        return redirect("plan:home", studio=request.studio.slug)
    words = f"{made.old.name} is needed again where {made.new.name} stood in."
    messages.success(request, f"{made.new.name} lies under {made.old.name} no more." if made.under else words)
    return redirect("plan:project", studio=request.studio.slug, project_id=made.project_id)
