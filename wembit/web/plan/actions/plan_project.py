"""Plan makings of a figure by a day."""

from __future__ import annotations

import datetime as dt
from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.figures.models import Colourway
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure, sums
from wembit.web.plan.models import Need, Project
from wembit.web.studio.models import MAKER, Member

from .reserve import reserve

DAYS_BEFORE = 14
STEP = Decimal("0.001")


@transaction.atomic
def plan_project(
    member: Member, colourway_id: UUID, *, name: str, count: int, due: dt.date, start: dt.date | None = None
) -> Project:
    """A project with its needs, and bags promised to them. Without a start: 14 days before the due date, not before today.

    Raises `Refusal` for a due date that lies behind, a figure without parts or a slot without a fibre; `Http404`.
    """
    member.must_be(MAKER)
    studio, today = member.studio, clock.today(member.studio)
    ways = Colourway.objects.of(studio).select_related("version__figure", "studio")
    colourway = get_object_or_404(ways, pk=colourway_id)
    if due < today:
        raise Refusal("The due date lies behind. Choose today or later.", "due")
    start = start or max(today, due - dt.timedelta(days=DAYS_BEFORE))
    if start > due:
        raise Refusal("It would start after it is due. Choose an earlier start.", "start")
    if not 1 <= count <= 500:
        raise Refusal("Choose how many: 1 to 500.", "count")
    project = Project.objects.create(
        studio=studio,
        colourway=colourway,
        name=" ".join(name.split()) or colourway.version.figure.name,
        count=count,
        start=start,
        due=due,
    )
    needs = make_needs(project)
    reserve(studio, {need.item_id for need in needs})
    return project


def make_needs(project: Project) -> list[Need]:
    """The needs of a project from its version's estimate. Raises `Refusal` where it has none."""
    version = project.colourway.version
    parts = parts_of(version)
    if not parts:
        raise Refusal(f"{version.figure.name} has no parts yet. Give it a body first.", "colourway")
    plan = plan_figure(version, parts, Palette.of(project.colourway))
    if plan.fault:
        raise Refusal(f"{version.figure.name} cannot be computed: {plan.fault.what}.", "colourway")
    found = sums(plan, project.count)
    bare = sorted({each.slot_name for each in found if each.item is None})
    if bare:
        raise Refusal(f"Choose a fibre first for: {', '.join(bare)}.", "colourway")
    return Need.objects.bulk_create(
        Need(
            studio=project.studio,
            project=project,
            item=each.item,
            seen=each.seen,
            **{name: Decimal(str(getattr(each.grams, name))).quantize(STEP) for name in ("p10", "p50", "p90")},
        )
        for each in found
        if each.grams.p50 > 0
    )
