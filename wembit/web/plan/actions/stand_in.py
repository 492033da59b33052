"""Let another fibre stand in for one that is short, in some makings of a project."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.decimals import to_step
from wembit.web.errors import Refusal
from wembit.web.plan.figure_needs import InSizes, of_a_making
from wembit.web.plan.instead import Instead
from wembit.web.plan.models import PLANNED, Need, Project, StandIn
from wembit.web.plan.queries import open_needs, project_of
from wembit.web.stash.models import FIBRE, Item
from wembit.web.stash.queries import colours
from wembit.web.studio.models import MAKER, Member

from .needs import write_needs
from .reserve import reserve


@transaction.atomic
def stand_in(
    member: Member, project_id: UUID, old_id: UUID, new_id: UUID, *, seen: bool, count: int, key: str = ""
) -> StandIn:
    """The last `count` makings of the project take the new fibre where they would have taken the old one (where it is seen, or
    where it is hidden). Needs and promises follow; the figure stays as it is. The same press (`key`) again changes nothing.

    Raises `Refusal`, `Http404`.
    """

    def all_of_it(need: Need, new: Item) -> Moved:
        seen_as = colours(member.studio, [new.pk]).get(new.pk, "")
        return Moved(of_a_making(need) * count, Instead.of(need, count).ratio(new, seen_as))

    return moved_over(member, project_id, old_id, new_id, seen=seen, count=count, key=key, how=all_of_it)


@dataclass(frozen=True)
class Moved:
    """How much of the old fibre is saved in all its makings, the grams of the new one for each of them, and the share of a
    cover that remains.
    """

    grams: Decimal
    ratio: float
    remains: float = 0.0


def moved_over(
    member: Member,
    project_id: UUID,
    old_id: UUID,
    new_id: UUID,
    *,
    seen: bool,
    count: int,
    key: str,
    how: Callable[[Need, Item], Moved],
) -> StandIn:
    """Within the caller's transaction: move a need over to another fibre, as `how` says; see `stand_in`."""
    member.must_be(MAKER)
    project = project_of(member.studio, project_id)
    Project.objects.filter(pk=project.pk).locked().get()
    if key and (earlier := StandIn.objects.of(member.studio).filter(client_key=key[:64]).first()):
        earlier.repeated = True
        return earlier
    new = get_object_or_404(Item.objects.of(member.studio).filter(kind=FIBRE), pk=new_id)
    need = next(iter(open_needs(member.studio, project=project, item=old_id, seen=seen)), None)
    if project.state != PLANNED or need is None or not need.left:
        raise Refusal("That project takes no more of that wool. Load the page anew.")
    if new.pk == need.item_id:
        raise Refusal("That is the wool that is short itself. Choose another one.", "new")
    left = makings_left(need)
    if not 1 <= count <= left:
        raise Refusal(f"Choose for how many it stands in: 1 to {left}.", "count")
    way = how(need, new)
    made = StandIn.objects.create(
        studio=member.studio, project=project, old=need.item, new=new, seen=seen, count=count,
        moved=min(need.left, to_step(way.grams)), ratio=way.ratio, remains=way.remains, client_key=key[:64],
    )  # fmt: skip
    reserve(member.studio, write_needs(project))
    return made


def makings_left(need: Need, figure: InSizes | None = None) -> int:
    """How many makings what is left of a need is for."""
    each = of_a_making(need, figure)
    return min(need.project.count, math.ceil(need.left / each - Decimal("0.02"))) if each else 0
