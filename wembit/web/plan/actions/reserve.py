"""Promise bags to needs."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING, Any
from uuid import UUID

from wembit.core.stock.allocation import Demand, FreeLot, reallocate
from wembit.web.decimals import to_step
from wembit.web.plan.models import Pin
from wembit.web.plan.queries import open_needs
from wembit.web.stash.models import Item, Lot, Promise
from wembit.web.stash.queries import opened_lots

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wembit.web.plan.models import Need
    from wembit.web.studio.models import Studio


def reserve(studio: Studio, item_ids: Iterable[UUID], *, locked: bool = False) -> None:
    """Make the promises of these items true again, within the caller's transaction; `locked`: it has locked the items.

    Promises that stand are kept as far as the bag and the need reach; what is open is promised anew by priority and due
    date. Where a need would be short while one that comes after it holds wool, all of that item is promised anew.
    """
    ids = sorted(set(item_ids))
    if not locked:
        list(Item.objects.filter(pk__in=ids).locked())
    promises = list(Promise.objects.filter(lot__item__in=ids).select_related("lot"))
    needs = open_needs(studio, promises, item__in=ids)
    old = {(p.lot_id, p.need): p.amount for p in promises}
    asked = sorted(
        {need.item_id for need in needs} | {p.lot.item_id for p in promises}
    )  # of the others nothing is promised
    if not asked:
        return
    lots: dict[UUID, list[Lot]] = {}
    opened: set[UUID] = set()
    for lot in Lot.objects.of(studio).filter(item__in=asked, waste=False).order_by("made_at"):
        lots.setdefault(lot.item_id, []).append(lot)
    if any(len(here) > 1 for here in lots.values()):  # else there is nothing to choose
        opened = opened_lots(lot.pk for here in lots.values() for lot in here)
    pins = _pins(studio, ids)
    for item_id in asked:
        mine = [need for need in needs if need.item_id == item_id]
        here = lots.get(item_id, [])
        held = {lot.pk for lot in here}
        before = {(p.lot_id, p.need): _row(p) for p in promises if p.lot_id in held}
        _write(studio, mine, before, _promised(mine, here, old, opened, pins))


def _pins(studio: Studio, ids: Sequence[UUID]) -> dict[tuple[UUID, bool, UUID], float]:
    """What makers keep by hand, by project, whether it is seen, and bag."""
    rows = Pin.objects.of(studio).filter(lot__item__in=ids).values_list("project", "seen", "lot", "amount")
    return {(project, seen, lot): float(amount) for project, seen, lot, amount in rows}


def _promised(needs: Sequence[Need], lots: Sequence[Lot], old: dict, opened: set[UUID], pins: dict) -> dict:
    """What each need is promised of each lot, by lot and need."""
    free = [FreeLot(lot.pk, lot.item_id, float(lot.on_hand), lot.dye_lot, lot.pk in opened) for lot in lots]
    demands = [
        Demand(need.pk, need.project.due, need.item_id, float(need.left), need.seen, need.project.priority)
        for need in needs
    ]
    held = {(need, lot): float(amount) for (lot, need), amount in old.items()}
    pinned: dict[tuple[object, object], float] = {
        (need.pk, lot.pk): pins[need.project_id, need.seen, lot.pk]
        for need in needs
        for lot in lots
        if (need.project_id, need.seen, lot.pk) in pins
    }
    return {
        (reservation.lot, reservation.demand): to_step(reservation.grams)
        for reservation in reallocate(free, demands, held, pinned).reservations
    }


def _row(promise: Promise) -> dict[str, Any]:
    """What a promise says of its amount and of its project."""
    return {name: getattr(promise, name) for name in ("amount", "due", "whose", "priority")}


def _write(studio: Studio, needs: Sequence[Need], before: dict, promised: dict) -> None:
    """Bring the stored promises of one item from `before` to `promised`, touching only those that differ."""
    of = {need.pk: need.project for need in needs}
    new: list[Promise] = []
    for lot, need in before.keys() - promised.keys():
        Promise.objects.filter(lot=lot, need=need).delete()
    for (lot, need), amount in promised.items():
        project = of[need]
        row = {"amount": amount, "due": project.due, "whose": project.name, "priority": project.priority}
        if (lot, need) not in before:
            new.append(Promise(studio=studio, lot_id=lot, need=need, **row))
        elif before[lot, need] != row:
            Promise.objects.filter(lot=lot, need=need).update(**row)
    Promise.objects.bulk_create(new)
