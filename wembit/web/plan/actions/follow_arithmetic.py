"""What was planned by an older arithmetic follows the one that stands."""

from __future__ import annotations

from contextlib import suppress

from django.db import transaction

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import lock_figure
from wembit.web.figures.queries import parts_of
from wembit.web.plan.figure_needs import needed_items
from wembit.web.plan.models import ARITHMETIC, PLANNED, RANGE, Need, Project
from wembit.web.plan.notion_items import things_for

from .follow_figure import follow_figure
from .reserve import reserve


def follow_arithmetic() -> int:
    """Bring the needs and promises of all open projects, of every studio, that an older Wembit worked out to what they are
    now. How many there were.
    """
    old = Project.objects.filter(state=PLANNED, arithmetic__lt=ARITHMETIC)
    done = 0
    for project in old.select_related("studio", "colourway__version__figure").order_by("colourway__version__figure_id"):
        with suppress(Refusal), transaction.atomic():  # a figure that cannot be computed says so on its own page
            _follow(project)
            done += 1
    return done


def _follow(project: Project) -> None:
    version = project.colourway.version
    lock_figure(project.studio, version.figure_id)
    if version.frozen_at is None:
        follow_figure(version)
    else:
        reserve(project.studio, _things_of_the_rest(project))
    Project.objects.filter(pk=project.pk).update(arithmetic=ARITHMETIC)


def _things_of_the_rest(project: Project) -> set:
    """Needs of the eyes, wire and fittings of the makings that are not begun; the wool of a begun project stays as it was
    planned. The ids of their items.
    """
    begun, version = project.makings.count(), project.colourway.version
    kept = needed_items(project)
    items = set()
    for thing in things_for(version, parts_of(version), kept):
        amount = thing.amount(project.count) - thing.amount(begun)
        if amount > 0 and thing.item.pk not in kept:
            need, _ = Need.objects.get_or_create(
                studio=project.studio, project=project, item=thing.item, seen=True, defaults=dict.fromkeys(RANGE, 0)
            )
            for name in RANGE:
                setattr(need, name, getattr(need, name) + amount)
            need.save(update_fields=RANGE)
            items.add(thing.item.pk)
    return items
