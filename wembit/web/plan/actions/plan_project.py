"""Plan makings of a figure by a day."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import lock_figure
from wembit.web.figures.models import Colourway
from wembit.web.figures.queries import parts_of
from wembit.web.limits import MAKINGS
from wembit.web.plan.figure_needs import bare_slots
from wembit.web.plan.models import BY_ITS_DAY, STOCK, Project
from wembit.web.studio.models import MAKER, Member

from .needs import write_needs
from .reserve import reserve

DAYS_BEFORE, MOST_SIZES = 14, 12


def few_enough(sizes: Sequence[float], count: int) -> None:
    """Raises `Refusal` for more sizes than makings, or too many different ones: each is reckoned by itself."""
    if len(sizes) > count:
        raise Refusal(f"These are {len(sizes)} sizes for {count}. Make more, or take sizes away.", "sizes")
    if len(set(sizes)) > MOST_SIZES:
        raise Refusal(f"A project has at most {MOST_SIZES} different sizes. Plan another one for the rest.", "sizes")


@transaction.atomic
def plan_project(
    member: Member,
    colourway_id: UUID,
    *,
    name: str,
    count: int,
    due: dt.date,
    start: dt.date | None = None,
    for_whom: str = STOCK,
    priority: int = BY_ITS_DAY,
    sizes: Sequence[float] = (),
) -> Project:
    """A project with its needs, and bags promised to them. Without a start: 14 days before the due date, not before today.
    `sizes` of the first so many makings, as times the figure's own.

    Raises `Refusal` for a due date that lies behind, a figure without parts or a slot without a fibre; `Http404`.
    """
    member.must_be(MAKER)
    studio, today = member.studio, clock.today(member.studio)
    ways = Colourway.objects.of(studio).select_related("version__figure", "studio")
    colourway = get_object_or_404(ways, pk=colourway_id)
    lock_figure(studio, colourway.version.figure_id)
    if due < today:
        raise Refusal("The due date lies behind. Choose today or later.", "due")
    start = start or max(today, due - dt.timedelta(days=DAYS_BEFORE))
    if start > due:
        raise Refusal("It would start after it is due. Choose an earlier start.", "start")
    if not 1 <= count <= MAKINGS:
        raise Refusal(f"Choose how many: 1 to {MAKINGS}.", "count")
    few_enough(sizes, count)
    project = Project.objects.create(
        studio=studio,
        colourway=colourway,
        name=" ".join(name.split()) or colourway.version.figure.name,
        count=count,
        start=start,
        due=due,
        for_whom=for_whom,
        priority=priority,
        sizes=list(sizes),
    )
    if not parts_of(colourway.version):
        raise Refusal(f"{colourway.version.figure.name} has no parts yet. Give it a body first.", "colourway")
    bare = bare_slots(colourway)
    if bare:
        raise Refusal(f"Choose a fibre first for: {', '.join(bare)}.", "colourway")
    reserve(studio, write_needs(project))
    return project
