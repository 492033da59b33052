"""Write down what a project needs."""

from __future__ import annotations

from contextlib import suppress
from uuid import UUID

from django.db import transaction
from django.db.models import ProtectedError

from wembit.web.plan.begun import Amounts, begun_of
from wembit.web.plan.figure_needs import amounts_for, needed_items
from wembit.web.plan.models import RANGE, Need, Project
from wembit.web.plan.queries import stand_ins_of
from wembit.web.stash.models import NOTION, ZERO, Item, Movement


def write_needs(project: Project) -> set[UUID]:
    """Bring the project's needs to what it takes as it now is: its begun makings what they took or hold, the others what the
    figure takes, with the stand-ins laid over it.

    Returns the ids of all items that a need was or is of. Raises `Refusal` for a figure that cannot be computed. Within the
    caller's transaction.
    """
    begun, stand_ins = begun_of(project), stand_ins_of(project)
    kept, all_begun = needed_items(project), begun.count >= project.count
    items = _write(project, {} if all_begun else amounts_for(project, kept, begun, stand_ins))
    _add(project, begun.amounts)
    named = {
        (item.pk, seen) for item, seen in begun.amounts
    }  # by layers in hand, or by a stand-in that may be taken back
    named |= {(made.old_id, made.seen) for made in stand_ins} | {(made.new_id, made.new_seen) for made in stand_ins}
    empty = project.needs.filter(p50=ZERO)
    used = Movement.objects.of(project.studio).filter(need__in=empty.values("pk")).values("need")
    for need in empty.exclude(pk__in=used):
        if (need.item_id, need.seen) not in named:
            need.delete()
    forget_wanted(items)
    return items | {item for item, _ in named}


def _write(project: Project, amounts: Amounts) -> set[UUID]:
    """The needs are these and nothing else; those that are none any more stay as 0. The ids of their items."""
    needs = {(need.item, need.seen): need for need in project.needs.select_related("item")}
    items = {item.pk for item, _ in needs}
    gone = {key: dict.fromkeys(RANGE, ZERO) for key in needs if key not in amounts}
    new: list[Need] = []
    for (item, seen), values in {**amounts, **gone}.items():
        need = needs.get((item, seen))
        if need is None:
            new.append(Need(studio=project.studio, project=project, item=item, seen=seen, **values))
        elif {name: getattr(need, name) for name in RANGE} != values:
            for name in RANGE:
                setattr(need, name, values[name])
            need.save(update_fields=RANGE)
    Need.objects.bulk_create(new)
    return items | {item.pk for item, _ in amounts}


def _add(project: Project, amounts: Amounts) -> None:
    for (item, seen), values in amounts.items():
        need = row_for(project, item.pk, seen)
        for name in RANGE:
            setattr(need, name, getattr(need, name) + values[name])
        need.save(update_fields=RANGE)


def row_for(project: Project, item: UUID, seen: bool) -> Need:
    """The project's need of that item, 0 where there was none."""
    need, _ = Need.objects.get_or_create(
        project=project, item_id=item, seen=seen, defaults={"studio": project.studio, **dict.fromkeys(RANGE, ZERO)}
    )
    return need


def forget_wanted(items: set[UUID]) -> None:
    """Notions that were only written down because they were needed, and are no longer, go."""
    for item in Item.objects.filter(pk__in=items, kind=NOTION, lots=None, needs=None, offers=None):
        with suppress(ProtectedError), transaction.atomic():
            item.delete()
