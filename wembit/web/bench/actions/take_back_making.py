"""Take back a making that was begun by mistake."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.bench.models import Making, NeedleBreak, Take, ThingTake
from wembit.web.bench.queries import making_of
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import lock_figure
from wembit.web.figures.models import Version
from wembit.web.plan.actions.needs import write_needs
from wembit.web.plan.actions.reserve import reserve
from wembit.web.plan.models import Project
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def take_back_making(member: Member, making_id: UUID) -> Project | None:
    """The making was not begun; a version that nothing else has frozen can be changed again. Gives its project.

    Raises `Refusal` where something was taken for it or broke at it, it is finished, or a later one was begun; `Http404`.
    """
    member.must_be(MAKER)
    making = making_of(member.studio, making_id).making
    lock_figure(member.studio, making.colourway.version.figure_id)
    if making.finished_at:
        raise Refusal("It is finished; it cannot be taken back.")
    if (
        Take.objects.filter(layer__piece__making=making).exists()
        or ThingTake.objects.filter(thing__making=making).exists()
    ):
        raise Refusal("Wool was taken for it, and the ledger remembers. Put it back, and finish it with nothing.")
    if NeedleBreak.objects.filter(piece__making=making).exists():
        raise Refusal("A needle broke at it, and the ledger remembers. Finish it with nothing.")
    project = making.project
    if project and project.makings.filter(number__gt=making.number).exists():
        raise Refusal("A later one of them is begun. Take that back first.")
    version_id = making.colourway.version_id
    making.delete()
    if project:
        reserve(member.studio, write_needs(project))
    if not Making.objects.filter(colourway__version=version_id).exists():
        Version.objects.filter(pk=version_id).update(frozen_at=None)
    return project
