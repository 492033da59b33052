"""What is planned, one project, its pull list."""

from __future__ import annotations

import datetime as dt
from collections import Counter
from dataclasses import replace
from typing import TYPE_CHECKING

from django.contrib import messages
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_GET, require_http_methods, require_POST
from django_htmx.http import push_url

from wembit.web import clock, numbers
from wembit.web.figures.materials_list.materials import Batch, listing
from wembit.web.figures.queries import colourways, ways_with
from wembit.web.figures.to_core.estimating import Palette
from wembit.web.once import once
from wembit.web.responses import again, page, refused, tried
from wembit.web.stash.chest.fronts import Front, fronts
from wembit.web.stash.models import ZERO, Item
from wembit.web.stash.queries import colours

from . import queries
from .actions.change_project import change_project
from .actions.close_project import drop_project, finish_project
from .actions.move_project import move_project
from .actions.pin_bag import let_go, pin_bag
from .actions.plan_project import DAYS_BEFORE, plan_project
from .actions.use_newest_version import use_newest_version, what_the_newest_changes
from .bench_plan import bench_plan
from .figure_needs import InSizes, bare_slots, newer_colourway
from .forms import ChangeForm, MoveForm, NewForm, PinForm
from .home_page import plan_context, shares, who_makes
from .models import FOR_WHOM, PLANNED, PRIORITIES, Project

if TYPE_CHECKING:
    from collections.abc import Sequence
    from decimal import Decimal
    from uuid import UUID

    from django.http import HttpResponse

    from wembit.web.request import Request
    from wembit.web.studio.models import Studio


@require_GET
def home(request: Request) -> HttpResponse:
    return render(request, "plan/plan.html", plan_context(request))


def nearby_days(project: Project, today: dt.date) -> list[tuple[str, dt.date | None]]:
    """The days to which a press moves it, each with its words; None where that day has passed."""
    steps = (("A week earlier", -7), ("A day earlier", -1), ("A day later", 1), ("A week later", 7))
    days = [(words, project.due + dt.timedelta(step)) for words, step in steps]
    return [(words, day if day >= today else None) for words, day in days]


def project_context(request: Request, project: Project) -> dict:
    """All that the page of a project shows."""
    way = project.colourway
    project.studio = way.studio = way.version.studio = way.version.figure.studio = request.studio  # looked up already
    needs, planned = queries.needs_of(project), bench_plan(request.studio)
    begun = project.makings.count()
    to_come = range(begun + 1, project.count + 1)
    return {
        "project": project,
        "days": nearby_days(project, clock.today(request.studio)),
        "at_the_bench": planned.rows.get(project.pk),
        "begin_by": planned.begin_by(project, clock.today(request.studio)),
        "whose": shares(planned.whose.get(project.pk, []), request.studio),
        "who_makes": who_makes(request.studio, project),
        "whom": FOR_WHOM,
        "priorities": PRIORITIES,
        "sizes": " / ".join(numbers.plain(size, 3, request.studio.decimal_mark) for size in project.all_sizes),
        "needs": needs,
        "shared_out": {line.need.pk: shared for line in needs if (shared := line.shared_out(to_come))},
        "bags": queries.bags_for(request.studio, needs) if project.state == PLANNED else {},
        "much": {line.need.pk: numbers.field_amount(line.left, line.need.item.unit, request.studio) for line in needs},
        "short": [line for line in needs if line.short],
        "stand_ins": queries.stand_ins_of(project),
        "begun": begun,
        "finished": project.makings.filter(finished_at__isnull=False).count(),
        "to_begin": project.count - begun,
        "figure": project.colourway.version.figure,
        "newer": newer_colourway(project) if project.state == PLANNED and begun < project.count else None,
        "bare": bare_slots(project.colourway) if project.state == PLANNED and begun < project.count else [],
    }


@require_GET
def project(request: Request, project_id: UUID) -> HttpResponse:
    project = queries.project_of(request.studio, project_id)
    context = {**project_context(request, project), **plan_context(request, project)}
    answer = page(request, "plan/plan.html", "plan/_moved.html", context)
    return push_url(answer, request.path) if request.htmx else answer


def new_context(request: Request) -> dict:
    today = clock.today(request.studio)
    return {
        "ways": [(way.pk, f"{way.version.figure.name} ({way.name})") for way in colourways(request.studio)],
        "due": today + dt.timedelta(days=28),
        "days_before": DAYS_BEFORE,
        "whom": FOR_WHOM,
        "priorities": PRIORITIES,
        "chosen": request.GET.get("colourway", ""),
    }


@require_http_methods(["GET", "POST"])
@once
def new(request: Request) -> HttpResponse:
    if request.method == "GET":
        return render(request, "plan/new.html", new_context(request))
    form = NewForm(request)
    made, faults = form.tried(lambda given: plan_project(request.member, given["colourway"], **form.told))
    if faults:
        return again(request, "plan/new.html", new_context(request), faults)
    return redirect("plan:project", studio=request.studio.slug, project_id=made.pk)


@require_POST
def change(request: Request, project_id: UUID) -> HttpResponse:
    project = queries.project_of(request.studio, project_id)
    form = ChangeForm(request)
    _, faults = form.tried(lambda _: change_project(request.member, project.pk, **form.changed(project)))
    if faults and project.state != PLANNED:  # its page has no such form any more
        refused(request, faults)
        return redirect("plan:project", studio=request.studio.slug, project_id=project.pk)
    if faults:
        context = {**project_context(request, project), **plan_context(request, project), "changing": True}
        return again(request, "plan/plan.html", context, faults)
    messages.success(request, "Kept.")
    return redirect("plan:project", studio=request.studio.slug, project_id=project.pk)


@require_POST
def move(request: Request, project_id: UUID) -> HttpResponse:
    """Another day or another number; what follows from it is on the project's page."""
    project = queries.project_of(request.studio, project_id)
    form = MoveForm(request)
    _, faults = form.tried(lambda _: move_project(request.member, project.pk, **form.changed(project)))
    if faults and request.htmx:
        context = {**project_context(request, project), **plan_context(request, project)}
        return again(request, "plan/_moved.html", {**context, "not_moved": next(iter(faults.values()))}, faults)
    if faults:
        refused(request, faults)
    return redirect("plan:project", studio=request.studio.slug, project_id=project.pk)


@require_POST
def pin(request: Request, project_id: UUID) -> HttpResponse:
    """Keep wool of a bag for a project by hand."""
    project = queries.project_of(request.studio, project_id)
    _, faults = PinForm(request).tried(
        lambda given: pin_bag(request.member, project.pk, given["lot"], given["amount"], seen=given["seen"])
    )
    shown = project.state == PLANNED and request.POST.get("need")
    if faults and not shown:  # its page has no such form any more
        refused(request, faults)
    elif faults:
        context = {**project_context(request, project), **plan_context(request, project)}
        context["pinning"] = request.POST.get("need", "")
        return again(request, "plan/plan.html", context, faults)
    return redirect("plan:project", studio=request.studio.slug, project_id=project.pk)


@require_POST
def unpin(request: Request, pin_id: UUID) -> HttpResponse:
    """What was kept by hand is anybody's again."""
    return redirect("plan:project", studio=request.studio.slug, project_id=let_go(request.member, pin_id))


@require_POST
def drop(request: Request, project_id: UUID) -> HttpResponse:
    dropped = drop_project(request.member, project_id)
    messages.success(request, f"{dropped.name} is given up; its wool is free again.")
    return redirect("plan:home", studio=request.studio.slug)


@require_POST
def finish(request: Request, project_id: UUID) -> HttpResponse:
    done = finish_project(request.member, project_id)
    messages.success(request, f"{done.name} is done.")
    return redirect("plan:home", studio=request.studio.slug)


@require_http_methods(["GET", "POST"])
def newest(request: Request, project_id: UUID) -> HttpResponse:
    """What the figure's newest version would change; and the press that takes it."""
    project = queries.project_of(request.studio, project_id)
    if request.method == "POST":
        _, faults = tried(lambda: use_newest_version(request.member, project.pk))
        if faults:
            refused(request, faults)
        else:
            messages.success(request, f"{project.name} is made by the newest version from now on.")
        return redirect("plan:project", studio=request.studio.slug, project_id=project.pk)
    context = project_context(request, project)
    changes, context["faults"] = tried(lambda: what_the_newest_changes(request.member, project.pk))
    paint = colours(request.studio, {change.item.pk for change in changes or []})
    context["changed"] = [(each, paint.get(each.item.pk, "")) for each in changes or [] if each.differs]
    context["same"] = [each for each in changes or [] if not each.differs]
    context["most"] = max((max(change.now, change.then) for change, _ in context["changed"]), default=0) or 1
    return render(request, "plan/newest.html", context)


@require_GET
def pull_list(request: Request, project_id: UUID) -> HttpResponse:
    """What to lay out, bag by bag, to print."""
    project = queries.project_of(request.studio, project_id)
    context = project_context(request, project)
    return render(request, "plan/pull_list.html", context | {"chest": pull_chest(request.studio, context["needs"])})


def pull_chest(studio: Studio, needs: Sequence[queries.NeedLine]) -> list[Front]:
    """The chest with those drawers lit from which something is pulled, each with what and how much."""
    wanted: dict[UUID | None, dict[Item, Decimal]] = {}
    for line in needs:
        for pull in line.pulls:
            inside = wanted.setdefault(pull.promise.lot.drawer_id, {})
            inside[line.need.item] = inside.get(line.need.item, ZERO) + pull.promise.amount
    return [_to_pull(studio, front, wanted.get(front.drawer_id, {})) for front in fronts(studio)]


def _to_pull(studio: Studio, front: Front, wanted: dict[Item, Decimal]) -> Front:
    words = [
        f"{item.name} {numbers.NARROW.join(numbers.amount(much, item.unit, studio))}" for item, much in wanted.items()
    ]
    return replace(front, words=tuple(words), is_lit=bool(words))


@require_GET
def everything(request: Request, project_id: UUID) -> HttpResponse:
    """Everything that what is left of the project takes, held against what is promised to it and what is free."""
    project = queries.project_of(request.studio, project_id)
    way, begun = project.colourway, project.makings.count()
    palette, figure = Palette.of(way), InSizes.of(way)
    mine: dict[UUID, Decimal] = {}
    for line in queries.needs_of(project):
        mine[line.need.item_id] = mine.get(line.need.item_id, ZERO) + line.promised
    count = max(project.count - begun, 1)
    first = project.count - count + 1
    sizes = Counter(project.size_of(number) for number in range(first, project.count + 1))
    batches = [Batch(figure.parts_at(size), figure.plan_or_fault(size), times) for size, times in sizes.items()]
    listed = listing(way.version, batches, palette, mine)
    context = {
        **listed,
        "project": project,
        "figure": way.version.figure,
        "count": count,
        "tables": [("Things", listed["things"]), ("Tools, which come back", listed["tools"])],
    }
    return render(request, "plan/list.html", context)


@require_GET
def needed_by(request: Request, item_id: UUID) -> HttpResponse:
    """The figures that a fibre is chosen for, and the projects that still need it: a piece of the fibre's page."""
    item = get_object_or_404(Item.objects.of(request.studio), pk=item_id)
    context = {"ways": ways_with(request.studio, item), "needs": queries.open_needs(request.studio, item=item)}
    return render(request, "plan/_needed_by.html", context)
