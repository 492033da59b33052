"""Lay a thin layer of another fibre under the covers of one that is short, in some makings of a project."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.core.colour.thin_layer import laid_under
from wembit.web.decimals import decimal
from wembit.web.errors import Refusal
from wembit.web.plan.models import Need, StandIn
from wembit.web.plan.queries import covers_of, stand_ins_of
from wembit.web.stash.models import Item
from wembit.web.stash.queries import colours
from wembit.web.studio.models import Member

from .stand_in import Moved, moved_over


@transaction.atomic
def lay_under(member: Member, project_id: UUID, old_id: UUID, new_id: UUID, *, count: int, key: str = "") -> StandIn:
    """The covers of the last `count` makings get thinner by what a layer of the new fibre under them saves.

    Raises `Refusal`, `Http404`, as `stand_in` does.
    """

    def thinner(need: Need, new: Item) -> Moved:
        if any(stand_in.old_id == need.item_id and stand_in.under for stand_in in stand_ins_of(need.project)):
            raise Refusal("A layer lies under it already. Take that back first.", "new")
        seen = colours(member.studio, [need.item_id, new.pk])
        if not (seen.get(need.item_id) and seen.get(new.pk)):
            raise Refusal("Tell the colours of both wools first: what is saved depends on them.", "new")
        old, under = ((seen[each.pk], each.source.micron_um) for each in (need.item, new))
        layer = laid_under(covers_of(need.project, need.item_id), old, under)
        if not layer.saved:
            raise Refusal("That wool would save nothing under it. Choose another one.", "new")
        return Moved(decimal(layer.saved * count), layer.ratio, layer.remains)

    return moved_over(member, project_id, old_id, new_id, seen=True, count=count, key=key, how=thinner)
