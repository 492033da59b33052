"""The app restock: it tells the plan what is on its way."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.apps import AppConfig

if TYPE_CHECKING:
    from wembit.web.plan.coming import Coming
    from wembit.web.stash.models import Entry
    from wembit.web.studio.models import Studio


class RestockConfig(AppConfig):
    """What runs out, and orders."""

    name = "wembit.web.restock"
    label = "restock"

    def ready(self) -> None:
        from wembit.web.plan.coming import tellers
        from wembit.web.stash.ledger import repeated

        if told_coming not in tellers:
            tellers.append(told_coming)
        repeated.connect(arrived_again, dispatch_uid="restock")


def arrived_again(old: Entry, new: Entry, **_: Any) -> None:
    """An order whose arrival was taken back and done again has arrived by the new entry."""
    from .actions.receive_order import arrived_by

    arrived_by(old, new)


def told_coming(studio: Studio, item_ids: Iterable[UUID]) -> dict[UUID, Coming]:
    """What is on the way and on the lists, for the plan."""
    from .queries import coming_by_item

    return coming_by_item(studio, item_ids)
