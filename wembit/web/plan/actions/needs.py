"""Write down what a project needs."""

from __future__ import annotations

from contextlib import suppress
from uuid import UUID

from django.db import transaction
from django.db.models import ProtectedError

from wembit.web.decimals import decimal, to_step
from wembit.web.plan.figure_needs import Amounts
from wembit.web.plan.models import RANGE, Need, Project, StandIn
from wembit.web.plan.queries import covers_of, stand_ins_of
from wembit.web.stash.models import NOTION, ZERO, Item, Movement


def write_needs(project: Project, amounts: Amounts) -> set[UUID]:
    """Bring the project's needs to these amounts, keeping those that stay; stand-ins are laid over them again.

    Returns the ids of all items that a need was or is of. Within the caller's transaction.
    """
    needs = {(need.item, need.seen): need for need in project.needs.select_related("item")}
    items = {item.pk for item, _ in needs}
    gone = {key: dict.fromkeys(RANGE, ZERO) for key in needs if key not in amounts}
    for (item, seen), values in {**amounts, **gone}.items():
        need = needs.get((item, seen)) or Need(studio=project.studio, project=project, item=item, seen=seen)
        for name in RANGE:
            setattr(need, name, values[name])
        need.save()
        needs[item, seen] = need
    for made in sorted(stand_ins_of(project), key=lambda made: made.made_at):
        move_over(project, made)
    empty = project.needs.filter(p50=ZERO)
    used = Movement.objects.of(project.studio).filter(need__in=empty.values("pk"))
    empty.exclude(pk__in=used.values("need")).delete()
    forget_wanted(items)
    return items | {item.pk for item, _ in amounts} | {made.new_id for made in stand_ins_of(project)}


def forget_wanted(items: set[UUID]) -> None:
    """Notions that were only written down because they were needed, and are no longer, go."""
    for item in Item.objects.filter(pk__in=items, kind=NOTION, lots=None, needs=None, offers=None):
        with suppress(ProtectedError), transaction.atomic():
            item.delete()


def move_over(project: Project, made: StandIn) -> None:
    """Take what a stand-in moves off one need and put it, times the ratio, onto that of the new fibre; `made.moved` is the
    share of its makings in what the need is now.
    """
    need = project.needs.filter(item=made.old, seen=made.seen).first()
    if need is None or not need.p50:
        return
    each = need.p50 / project.count
    if made.under:
        each = decimal((1 - made.remains) * sum(cover.grams for cover in covers_of(project, made.old_id)))
    moved = min(need.p50, to_step(each * made.count))
    StandIn.objects.filter(pk=made.pk).update(moved=moved)
    made.moved = moved
    shift(need, made)


def shift(need: Need, made: StandIn) -> None:
    """Move `made.moved` grams of a need, and the range with them, to the fibre that stands in."""
    share, ratio = made.moved / need.p50, decimal(made.ratio)
    other, _ = Need.objects.get_or_create(
        project=need.project, item=made.new, seen=made.new_seen,
        defaults={"studio": need.studio, **dict.fromkeys(RANGE, ZERO)},
    )  # fmt: skip
    for name in RANGE:
        part = getattr(need, name) * share
        setattr(need, name, getattr(need, name) - part)
        setattr(other, name, getattr(other, name) + part * ratio)
    need.save(update_fields=RANGE)
    other.save(update_fields=RANGE)
