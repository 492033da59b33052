"""Promise bags to needs."""

from __future__ import annotations

from collections.abc import Iterable
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.stock.allocation import Demand, FreeLot, allocate
from wembit.web.decimals import to_step
from wembit.web.plan.queries import CRUMB, open_needs
from wembit.web.stash.models import ZERO, Item, Lot, Promise

if TYPE_CHECKING:
    from collections.abc import Sequence

    from wembit.web.plan.models import Need
    from wembit.web.studio.models import Studio


def reserve(studio: Studio, item_ids: Iterable[UUID]) -> None:
    """Make the promises of these items true again, within the caller's transaction.

    Promises that stand are kept as far as the bag and the need reach; what is open is promised anew by due date. Where an
    earlier need would be short while a later one holds wool, all of that item is promised anew.
    """
    ids = sorted(set(item_ids))
    list(Item.objects.filter(pk__in=ids).locked())
    needs = open_needs(studio, item__in=ids)
    promises = list(Promise.objects.filter(lot__item__in=ids).select_related("lot"))
    old = {(p.lot_id, p.need): p.amount for p in promises}
    asked = sorted(
        {need.item_id for need in needs} | {p.lot.item_id for p in promises}
    )  # of the others nothing is promised
    lots: dict[UUID, list[Lot]] = {}
    for lot in Lot.objects.of(studio).filter(item__in=asked, waste=False).order_by("made_at"):
        lots.setdefault(lot.item_id, []).append(lot)
    for item_id in asked:
        mine = [need for need in needs if need.item_id == item_id]
        here = lots.get(item_id, [])
        kept = _kept(mine, here, old)
        promised, short = _promised(mine, here, kept)
        if kept and _unfair(mine, promised, short):
            promised, short = _promised(mine, here, {})
        before = {key: amount for key, amount in old.items() if key[0] in {lot.pk for lot in here}}
        if promised != before:
            _write(studio, mine, before, promised)


def _kept(needs: Sequence[Need], lots: Sequence[Lot], old: dict) -> dict:
    room = {lot.pk: lot.on_hand for lot in lots}
    kept = {}
    for need in needs:
        left = need.left
        for lot in lots:
            amount = min(old.get((lot.pk, need.pk), ZERO), left, room[lot.pk])
            if amount >= CRUMB:
                kept[lot.pk, need.pk] = amount
                left -= amount
                room[lot.pk] -= amount
    return kept


def _promised(needs: Sequence[Need], lots: Sequence[Lot], kept: dict) -> tuple[dict, dict]:
    held_of: dict[UUID, Decimal] = {}
    held_by: dict[UUID, Decimal] = {}
    for (lot, need), amount in kept.items():
        held_of[lot] = held_of.get(lot, ZERO) + amount
        held_by[need] = held_by.get(need, ZERO) + amount
    free = [
        FreeLot(
            lot.pk, lot.item_id, float(lot.on_hand - held_of.get(lot.pk, ZERO)), lot.dye_lot, bool(held_of.get(lot.pk))
        )
        for lot in lots
    ]
    demands = [
        Demand(need.pk, need.project.due, need.item_id, float(need.left - held_by.get(need.pk, ZERO)), need.seen)
        for need in needs
    ]
    found = allocate(free, demands)
    promised = dict(kept)
    for each in found.reservations:
        key = (each.lot, each.demand)
        promised[key] = promised.get(key, ZERO) + to_step(each.grams)
    return {key: amount for key, amount in promised.items() if amount >= CRUMB}, found.short


def _unfair(needs: Sequence[Need], promised: dict, short: dict) -> bool:
    """Whether a need is short while one with a later due date holds something."""
    held = {need for _, need in promised}
    dues = [need.project.due for need in needs if need.pk in short]
    return bool(dues) and any(need.project.due > min(dues) for need in needs if need.pk in held)


def _write(studio: Studio, needs: Sequence[Need], before: dict, promised: dict) -> None:
    """Bring the stored promises of one item from `before` to `promised`, touching only those that differ."""
    by_id = {need.pk: need for need in needs}
    for lot, need in before.keys() - promised.keys():
        Promise.objects.filter(lot=lot, need=need).delete()
    for (lot, need), amount in promised.items():
        if (lot, need) not in before:
            project = by_id[need].project
            Promise.objects.create(
                studio=studio, lot_id=lot, need=need, amount=amount, due=project.due, whose=project.name
            )
        elif before[lot, need] != amount:
            Promise.objects.filter(lot=lot, need=need).update(amount=amount)
