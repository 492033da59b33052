"""Take back a change of a figure, or do it again."""

from __future__ import annotations

from django.db import transaction
from django.http import Http404
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import Editing, leave, lock_figure
from wembit.web.figures.editing.snapshots import put
from wembit.web.figures.models import Version
from wembit.web.figures.queries import newest_version
from wembit.web.studio.models import MAKER, Deed, Member


@transaction.atomic
def take_back_change(member: Member, deed: Deed, *, again: bool = False) -> Deed:
    """The rows of the figure as they were before the deed, or after it `again`; what is planned follows. Raises `Refusal` when
    others have built on it, `Http404` for another studio's.
    """
    member.must_be(MAKER)
    if deed.studio_id != member.studio_id or deed.thing is None:
        raise Http404
    figure = lock_figure(member.studio, deed.thing)  # before the deed, as every change of a figure does
    version = newest_version(figure)
    deed = get_object_or_404(Deed.objects.of(member.studio).locked(), pk=deed.pk, kind=Deed.FIGURE)
    if deed.version is None or deed.rows is None:
        raise Refusal("That is too long ago to be taken back.")
    if (deed.taken_back_at is not None) != again:
        raise Refusal("That stands again already." if again else "That was taken back already.")
    if version.pk != deed.version or version.frozen_at is not None:
        raise Refusal("The figure is made as it is by now. Change it anew; the makings keep what they have.")
    put(version.pk, deed.rows, back=not again)
    leave(Editing(Version.objects.get(pk=version.pk)), [])
    deed.taken_back_at = None if again else clock.now()
    deed.save(update_fields=["taken_back_at"])
    return deed
