"""What can be done about a wool that is short for a project, and the press that does it."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django import forms
from django.contrib import messages
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.web.colour.recipes import shares_of
from wembit.web.errors import Refusal
from wembit.web.idempotency import press_of
from wembit.web.plan.queries import need_of, project_of, stand_ins_of
from wembit.web.responses import again, tried
from wembit.web.restock.actions.accept_answer import lay_thinly, take_answer_back, use_instead
from wembit.web.restock.actions.card_and_use import card_and_use
from wembit.web.studio.models import MAKER

from .answering import answers

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


def answers_context(request: Request, project_id: UUID, item_id: UUID) -> dict:
    count = request.GET.get("count", "")
    found = answers(
        request.studio,
        need_of(request.studio, project_id, item_id),
        int(count) if count.isascii() and count.isdigit() and len(count) < 4 else None,
        only=bool(request.GET.get("only")),
    )
    project = project_of(request.studio, project_id)
    standing = [each for each in stand_ins_of(project) if each.old_id == item_id]
    return {"found": found, "project": project, "item": found.line.need.item, "standing": standing}


@require_GET
def short(request: Request, project_id: UUID, item_id: UUID) -> HttpResponse:
    """Three answers, the rest behind them."""
    return render(request, "restock/answers/answers.html", answers_context(request, project_id, item_id))


@require_POST
def accept(request: Request, project_id: UUID, item_id: UUID) -> HttpResponse:
    """Let another wool stand in, card a blend that does, or lay one thinly under."""
    request.member.must_be(MAKER)
    given = request.POST

    def do() -> Any:
        try:
            count = forms.IntegerField(min_value=1).clean(given.get("count", ""))
            grams = forms.DecimalField(min_value=0, max_digits=9).clean(given.get("grams") or "0")
            new: Any = None if given.get("recipe") else forms.UUIDField().clean(given.get("new", ""))
        except forms.ValidationError:
            raise Refusal("Choose an answer of the list. Load the page anew, it may have changed.") from None
        press, seen = press_of(request), bool(given.get("seen"))
        if given.get("recipe"):
            return card_and_use(
                request.member, project_id, item_id, shares_of(given["recipe"]), grams, seen=seen, count=count,
                everywhere=bool(given.get("everywhere")), name=given.get("name", ""), press=press,
                anyway=bool(given.get("anyway")),
            )  # fmt: skip
        if given.get("under"):
            return lay_thinly(request.member, project_id, item_id, new, count=count, key=press.key)
        return use_instead(request.member, project_id, item_id, new, seen=seen, count=count, key=press.key)

    made, faults = tried(do)
    if faults:
        faults = {"anyway" if key == "anyway" else "": words for key, words in faults.items()}
        return again(request, "restock/answers/answers.html", answers_context(request, project_id, item_id), faults)
    does = "lies thinly under" if made.under else "stands in for"
    messages.success(request, f"{made.new.name} {does} {made.old.name}.")
    return redirect("plan:project", studio=request.studio.slug, project_id=project_id)


@require_POST
def take_back(request: Request, stand_in_id: UUID) -> HttpResponse:
    made, faults = tried(lambda: take_answer_back(request.member, stand_in_id))
    if faults:
        messages.warning(request, next(iter(faults.values())))
        return redirect("plan:home", studio=request.studio.slug)
    words = f"{made.old.name} is needed again where {made.new.name} stood in."
    messages.success(request, f"{made.new.name} lies under {made.old.name} no more." if made.under else words)
    return redirect("plan:project", studio=request.studio.slug, project_id=made.project_id)
