"""What is planned follows a taking that was taken back after its making was finished."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.db.models import Q

from wembit.web.figures.editing.door import lock_figure
from wembit.web.plan.actions.needs import write_needs
from wembit.web.plan.actions.reserve import reserve
from wembit.web.plan.models import PLANNED, Project
from wembit.web.stash.models import Entry


def follow_takes(entry: Entry) -> None:
    """The needs of the open projects for whose finished makings that entry, taken back by now, had taken something. After the
    caller's transaction, since figures are locked before items.
    """
    finished = Q(makings__finished_at__isnull=False)
    of_wool = Q(makings__pieces__layers__takes__movement__entry=entry)
    of_things = Q(makings__things__takes__movement__entry=entry)
    projects = Project.objects.of(entry.studio).filter(finished & (of_wool | of_things), state=PLANNED).distinct()
    ids = list(projects.values_list("pk", "colourway__version__figure_id"))
    if ids:
        transaction.on_commit(lambda: _write(entry, ids))


def _write(entry: Entry, ids: list[tuple[UUID, UUID]]) -> None:
    for pk, figure_id in ids:
        with transaction.atomic():
            lock_figure(entry.studio, figure_id)
            project = Project.objects.select_related("studio", "colourway__version__figure").get(pk=pk)
            reserve(entry.studio, write_needs(project))
