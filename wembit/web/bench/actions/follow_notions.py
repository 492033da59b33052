"""What is planned and in hand goes to the notions that came, or were told otherwise."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from uuid import UUID

from django.db import transaction

from wembit.core.craft.notions import Needed
from wembit.core.stock.serving import called
from wembit.web.bench.models import Making, MakingThing
from wembit.web.bench.queries import parts_of_making
from wembit.web.decimals import to_cent
from wembit.web.errors import Refusal
from wembit.web.plan.actions.needs import row_for
from wembit.web.plan.actions.rewrite_needs import rewrite_needs
from wembit.web.plan.models import PLANNED, Project
from wembit.web.plan.notion_items import ThingOf, things_for
from wembit.web.stash.models import NOTION, Item
from wembit.web.studio.models import Studio


def follow_notions(studio: Studio, item_ids: Iterable[UUID]) -> None:
    """Needs and promises of the open projects that need notions of these kinds, and things of makings in hand for which
    nobody has laid anything in: what now serves them best.
    """
    kinds = set(Item.objects.of(studio).filter(pk__in=list(item_ids), kind=NOTION).values_list("notion", flat=True))
    if not kinds:
        return
    needing = Project.objects.of(studio).filter(state=PLANNED, needs__item__notion__in=kinds)
    for pk in dict.fromkeys(needing.order_by("due", "made_at").values_list("pk", flat=True)):
        with suppress(Refusal), transaction.atomic():  # a figure that cannot be computed says so on its own page
            project = rewrite_needs(studio, pk)
            if sum(_follow(making) for making in project.makings.filter(finished_at=None)):
                rewrite_needs(studio, pk)


def _follow(making: Making) -> int:
    """The things that were only wanted so far go to what serves them. How many."""
    wanted = MakingThing.objects.filter(making=making, takes=None, item__lots=None).select_related("item")
    if not wanted:
        return 0
    version = making.colourway.version
    changed = 0
    serving = {_name(thing.needed): thing for thing in things_for(version, parts_of_making(making))}
    for row in wanted:
        thing: ThingOf | None = serving.get((row.item.notion, row.item.name, row.item.size_mm))
        if thing and thing.item.pk != row.item_id:
            assert making.project is not None, "of a project"
            row.item, row.amount = thing.item, thing.amount_of(making.number)
            row.need = row_for(making.project, thing.item.pk, True).pk
            row.save(update_fields=["item", "amount", "need"])
            changed += 1
    return changed


def _name(needed: Needed) -> tuple:
    """By what a need is known that was written down as wanted: see `plan/notion_items`."""
    return needed.notion, called(needed)[:80], None if needed.size_mm is None else to_cent(needed.size_mm)
