"""The makers at the bench: their hours, the days they are away, and who makes what."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.contrib import messages
from django.shortcuts import redirect
from django.views.decorators.http import require_POST

from wembit.core.contract.requests import WEEK
from wembit.web.responses import again, refused, tried
from wembit.web.studio.models import MAKER

from . import queries
from .actions.keep_away import come_back, go_away
from .actions.keep_hours import keep_hours
from .actions.leave_to_others import leave_to_others
from .forms import AwayForm, HoursForm, WhoForm
from .home_page import plan_context

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request


@require_POST
def hours(request: Request) -> HttpResponse:
    """The hours that the makers have at the bench."""
    forms = {
        maker.member.pk: HoursForm(request, str(maker.member.pk)) for maker in queries.at_the_bench(request.studio)
    }
    sent = {pk: form for pk, form in forms.items() if any(map(form.has, WEEK))}
    faults = {name: words for form in sent.values() for name, words in form.faults.items()}
    if not faults:
        given = {pk: {day: float(form.cleaned_data[day] or 0) for day in WEEK} for pk, form in sent.items()}
        _, faults = tried(lambda: keep_hours(request.member, given))
    if faults:
        return _once_more(request, faults)
    return redirect("plan:home", studio=request.studio.slug)


@require_POST
def away(request: Request) -> HttpResponse:
    """Days on which a maker is not at the bench."""
    request.member.must_be(MAKER)
    _, faults = AwayForm(request).tried(
        lambda given: go_away(request.member, given["maker"], given["first"], given["last"])
    )
    if faults:
        return _once_more(request, faults)
    return redirect("plan:home", studio=request.studio.slug)


@require_POST
def back(request: Request, away_id: UUID) -> HttpResponse:
    """She is there after all."""
    come_back(request.member, away_id)
    messages.success(request, "There after all.")
    return redirect("plan:home", studio=request.studio.slug)


@require_POST
def who(request: Request, project_id: UUID) -> HttpResponse:
    """A maker makes the project's figure, or leaves it to the others."""
    project = queries.project_of(request.studio, project_id)
    request.member.must_be(MAKER)
    _, faults = WhoForm(request).tried(
        lambda given: leave_to_others(request.member, project.pk, given["maker"], makes=given["makes"])
    )
    if faults:
        refused(request, faults)
    return redirect("plan:project", studio=request.studio.slug, project_id=project.pk)


def _once_more(request: Request, faults: dict[str, str]) -> HttpResponse:
    return again(request, "plan/plan.html", {**plan_context(request), "hours_wrong": True}, faults)
