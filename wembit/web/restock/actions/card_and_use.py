"""Card a blend that stands in for a wool that is short."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.core.craft.materials import LOSS_CARDING
from wembit.web.errors import Refusal
from wembit.web.plan.models import StandIn
from wembit.web.plan.queries import need_of
from wembit.web.restock.answers.answering import places_beside
from wembit.web.stash.actions.blend import Share, blend
from wembit.web.stash.ledger import Press
from wembit.web.studio.models import MAKER, Member

from .accept_answer import use_instead


@transaction.atomic
def card_and_use(
    member: Member,
    project_id: UUID,
    item_id: UUID,
    shares: Sequence[Share],
    grams: Decimal,
    *,
    seen: bool,
    count: int,
    everywhere: bool,
    name: str,
    press: Press,
    anyway: bool = False,
) -> StandIn:
    """Make `grams` of the blend and let it stand in in the last `count` makings; `everywhere`: in all other projects, too,
    that are short of that wool where it is seen, or hidden, as it is here. All of it or nothing; the same press once.

    Raises `Refusal`, `Short`, `Http404`.
    """
    member.must_be(MAKER)
    need = next((line.need for line in need_of(member.studio, project_id, item_id) if line.need.seen == seen), None)
    if need is None:
        raise Refusal("That project takes no more of that wool. Load the page anew.")
    others = places_beside(member.studio, need) if everywhere else []
    made = blend(
        member, shares, grams, name=name[:80] or f"blend for {need.project.name}", form="batt", press=press,
        loss=member.studio.habits.get("carding_loss", LOSS_CARDING), anyway=anyway,
    ).lot  # fmt: skip
    for number, place in enumerate(others):
        key = f"{press.key[:58]}-{number}" if press.key else ""
        use_instead(member, place.need.project_id, item_id, made.item_id, seen=seen, count=place.count, key=key)
    return use_instead(member, project_id, item_id, made.item_id, seen=seen, count=count, key=press.key)
