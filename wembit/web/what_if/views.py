"""What if: projects tried on other days and in other numbers, beside what is."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING
from urllib.parse import urlencode
from uuid import UUID, uuid4

from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.utils.safestring import mark_safe
from django.views.decorators.http import require_GET, require_POST

from wembit.web import clock
from wembit.web.asked import id_in, whole_number_in
from wembit.web.limits import MAKINGS
from wembit.web.plan.actions.plan_project import plan_project
from wembit.web.plan.bench_plan import bench_plan
from wembit.web.plan.models import Project
from wembit.web.plan.queries import need_of, open_figures
from wembit.web.plan.sill.drawing import picked, sill_of
from wembit.web.plan.sill.figures import SHOWN, on_sill
from wembit.web.responses import refused
from wembit.web.responses import tried as attempted
from wembit.web.restock.answers.accepting import accepted
from wembit.web.stash.ledger import Press
from wembit.web.studio.models import MAKER, Member

from .forms import AnswerForm, PreviewForm
from .trying import MOST, Change, Tried, keep, moved, tried

if TYPE_CHECKING:
    from wembit.web.request import Request
    from wembit.web.studio.models import Studio

TEN_YEARS = 3660


def read(given: Iterable[str], open_ones: Sequence[Project]) -> list[Change]:
    """What an address or a form asks for, of open projects of this studio, each once, the last word counting; what cannot be
    read is not asked. Raises `Http404` for other projects.
    """
    known = {project.pk: project for project in open_ones}
    found: dict[UUID, Change] = {}
    for words in given:
        pk, due, count = [*words.split(":"), "", "", ""][:3]
        project, number = id_in(pk), whole_number_in(count)
        try:
            day = dt.date.fromisoformat(due)
        except ValueError:
            continue
        if project is not None and project not in known:
            raise Http404
        if project and number and number <= MAKINGS and abs((day - known[project].due).days) <= TEN_YEARS:
            found[project] = Change(project, day, number)
    return list(found.values())[:MOST]


def address(studio: Studio, changes: Iterable[Change]) -> str:
    """Where those changes are tried."""
    return f"{reverse('what_if:home', args=[studio.slug])}?{urlencode([('c', change.told) for change in changes])}"


def _with(changes: Sequence[Change], change: Change) -> list[Change]:
    return [*(each for each in changes if each.project != change.project), change]


def context_of(request: Request, changes: Sequence[Change]) -> dict:
    """The sill as it would be, the projects that are tried with the presses that try them otherwise, and what differs."""
    studio, today = request.studio, clock.today(request.studio)
    rows = open_figures(studio).projects
    was = {project.pk: Change(project.pk, project.due, project.count) for project in rows}

    def leads(project: Project) -> str:
        now = next((each for each in changes if each.project == project.pk), was[project.pk])
        return address(studio, _with(changes, now))

    def draw(as_it_would_be: Studio) -> str:
        plan = bench_plan(as_it_would_be)
        figures, _ = on_sill(as_it_would_be, plan, 0, leads)
        return sill_of(as_it_would_be, figures, plan, today)

    outcome, picture = tried(request.member, moved(changes), draw)
    named = {project.pk: project for project in rows}
    projects = []
    for change in changes:
        due, count = change.due, change.count
        presses = [
            ("A week earlier", replace(change, due=due - dt.timedelta(7)), due - dt.timedelta(7) >= today),
            ("A day earlier", replace(change, due=due - dt.timedelta(1)), due - dt.timedelta(1) >= today),
            ("A day later", replace(change, due=due + dt.timedelta(1)), True),
            ("A week later", replace(change, due=due + dt.timedelta(7)), True),
            ("One fewer", replace(change, count=count - 1), count > 1),
            ("One more", replace(change, count=count + 1), count < MAKINGS),
        ]
        links = [(words, address(studio, _with(changes, other)) if can else "") for words, other, can in presses]
        without = address(studio, [each for each in changes if each != change])
        projects.append((named[change.project], change, links, without, outcome.refused.get(change.project, "")))
    return {
        "sill": mark_safe(picked(picture, [change.project for change in changes])),
        "hours": bool(bench_plan(studio).hours),
        "projects": projects,
        "outcome": outcome,
        "differs": differs(outcome),
        "changes": " ".join(change.told for change in changes if change != was[change.project]),
        "were": " ".join(was[change.project].told for change in changes if change != was[change.project]),
    }


@require_GET
def what_if(request: Request) -> HttpResponse:
    """What is tried, beside what is."""
    changes = read(request.GET.getlist("c")[: 2 * MOST], open_figures(request.studio).projects)
    if not changes:
        return render(request, "what_if/what_if.html", {})
    request.member.must_be(MAKER)
    return render(request, "what_if/what_if.html", context_of(request, changes))


@require_POST
def keep_it(request: Request) -> HttpResponse:
    """What was tried, for good."""
    request.member.must_be(MAKER)
    rows = open_figures(request.studio).projects
    changes, were = (read(request.POST.get(name, "").split()[: 2 * MOST], rows) for name in ("tried", "was"))
    _, faults = attempted(lambda: keep(request.member, changes, were))
    if faults:
        refused(request, faults)
        return redirect(address(request.studio, changes))
    messages.success(request, "Kept, as it was tried.")
    return redirect("plan:home", studio=request.studio.slug)


@require_GET
def preview(request: Request) -> HttpResponse:
    """What a new project would come to, while its form is filled: on the sill, and what would be late, short, to be ordered.
    Nothing while the form cannot be read.
    """
    form = PreviewForm(request)
    if not form.is_valid():
        return HttpResponse()
    request.member.must_be(MAKER)
    given, today = form.cleaned_data, clock.today(request.studio)
    planned: list[UUID] = []

    def plan(member: Member) -> dict[UUID, str]:
        planned.append(plan_project(member, given["colourway"], **form.told).pk)
        return {}

    def draw(as_it_would_be: Studio) -> str:
        rows, _ = on_sill(as_it_would_be, bench_plan(as_it_would_be), page_with(as_it_would_be, planned[0]))
        return picked(sill_of(as_it_would_be, rows, bench_plan(as_it_would_be), today), planned)

    found, faults = attempted(lambda: tried(request.member, plan, draw))
    if faults:
        return render(request, "what_if/_preview.html", {"fault_words": next(iter(faults.values()))})
    outcome, picture = found
    shown = {"outcome": outcome, "sill": mark_safe(picture), "differs": differs(outcome)}
    return render(request, "what_if/_preview.html", shown)


def differs(outcome: Tried) -> bool:
    """Whether anything would be otherwise."""
    return bool(outcome.late or outcome.short or outcome.orders or outcome.cost_more)


def page_with(studio: Studio, project_id: UUID) -> int:
    """The number of the first project on the page of the sill on which one stands."""
    order = [project.pk for project in open_figures(studio).projects]
    return order.index(project_id) // SHOWN * SHOWN if project_id in order else 0


@require_GET
def answer(request: Request, project_id: UUID, item_id: UUID) -> HttpResponse:
    """What an answer to a shortage would save: less to order, less of it short, sooner, for less."""
    need_of(request.studio, project_id, item_id)
    request.member.must_be(MAKER)
    form = AnswerForm(request)
    if not form.is_valid():
        return HttpResponse()

    def accept(member: Member) -> dict[UUID, str]:
        accepted(member, project_id, item_id, form.cleaned_data, Press(str(uuid4())))
        return {}

    found, faults = attempted(lambda: tried(request.member, accept, lambda _: ""))
    if faults:
        return render(request, "what_if/_answer.html", {"fault_words": next(iter(faults.values()))})
    outcome = found[0]
    return render(request, "what_if/_answer.html", {"outcome": outcome, "differs": differs(outcome)})
