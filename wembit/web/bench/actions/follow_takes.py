"""What is planned follows what was taken for a making, put back or taken back after it was finished."""

from __future__ import annotations

from contextlib import suppress
from uuid import UUID

from django.db.models import Q

from wembit.web.bench.models import Making
from wembit.web.errors import Refusal
from wembit.web.plan.actions.rewrite_needs import rewrite_needs
from wembit.web.plan.models import PLANNED
from wembit.web.stash.models import Entry

from .learn import learn


def follow_takes(entry: Entry) -> None:
    """The needs of the open projects for whose finished makings that entry, or the one that it takes back, moved something, or
    for which a try was given up by it; what a finished one took teaches something else then. After the entry's transaction,
    since figures are locked before items.
    """
    entries: list[UUID] = [pk for pk in (entry.pk, entry.reverses_id) if pk]
    of_wool = Q(pieces__layers__takes__movement__entry__in=entries)
    of_things = Q(things__takes__movement__entry__in=entries)
    finished = Q(of_wool | of_things, finished_at__isnull=False)
    makings = Making.objects.of(entry.studio).filter(finished | Q(pieces__tries__entry__in=entries))
    rows = list(makings.values_list("project", "project__state", "finished_at").distinct())
    if any(finished_at for *_, finished_at in rows):
        learn(entry.studio)
    for pk in {pk for pk, state, _ in rows if state == PLANNED}:
        with suppress(Refusal):  # a figure that cannot be computed says so on its own page
            rewrite_needs(entry.studio, pk)
