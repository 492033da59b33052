"""The answer that a maker has pressed, or would press, done."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from wembit.web.colour.recipes import shares_of
from wembit.web.decimals import decimal
from wembit.web.restock.actions.accept_answer import lay_thinly, use_instead
from wembit.web.restock.actions.card_and_use import card_and_use

if TYPE_CHECKING:
    from uuid import UUID

    from wembit.web.plan.models import StandIn
    from wembit.web.stash.ledger import Press
    from wembit.web.studio.models import Member


def accepted(member: Member, project_id: UUID, item_id: UUID, given: dict[str, Any], press: Press) -> StandIn:
    """Another wool stands in, a blend that does is carded, or one is laid thinly under; `given` as `AcceptForm` reads it.
    Raises `Refusal`, `Http404`.
    """
    seen, count = given["seen"], given["count"]
    if given["recipe"]:
        return card_and_use(
            member, project_id, item_id, shares_of(given["recipe"]), decimal(given["grams"] or 0), seen=seen,
            count=count, everywhere=given["everywhere"], name=given["name"], press=press, anyway=given["anyway"],
        )  # fmt: skip
    if given["under"]:
        return lay_thinly(member, project_id, item_id, given["new"], count=count, key=press.key)
    return use_instead(member, project_id, item_id, given["new"], seen=seen, count=count, key=press.key)
