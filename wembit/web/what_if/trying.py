"""Changes of projects tried in a transaction that is taken back, and what they would come to."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction

from wembit.web.caches import nothing_kept
from wembit.web.decimals import to_cent
from wembit.web.errors import Refusal
from wembit.web.plan.actions.move_project import move_project
from wembit.web.plan.bench_plan import bench_plan
from wembit.web.plan.queries import open_figures, shorts_by_project
from wembit.web.restock.queries import tides_now
from wembit.web.stash.models import ZERO
from wembit.web.studio.models import Member

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

MOST = 24  # projects that are tried at once


@dataclass(frozen=True)
class Change:
    """A project as it is tried, or as it is."""

    project: UUID
    due: dt.date
    count: int

    @property
    def told(self) -> str:
        """As an address says it."""
        return f"{self.project}:{self.due.isoformat()}:{self.count}"


@dataclass(frozen=True)
class Short:
    """What a project is short of."""

    project: str
    item: str
    amount: Decimal
    unit: str


@dataclass(frozen=True)
class ToOrder:
    """What is to be ordered by when (None where nobody sells it)."""

    item: str
    by: dt.date | None
    amount: float
    unit: str


@dataclass(frozen=True)
class Seen:
    """What a plan comes to: days late by project (none where it is in time), what is short, what is to be ordered, and what
    that costs with the postage, in the studio's currency.
    """

    late: dict[str, int]
    short: dict[tuple[UUID, UUID], Short]
    orders: dict[UUID, ToOrder]
    cost: Decimal


def seen(studio: Studio) -> Seen:
    """The plan as it is now; a project that somebody plans while it is read is not of it yet, and one that somebody takes off
    is of it no more. A bounded number of queries.
    """
    plan, tides = bench_plan(studio), tides_now(studio)
    names = {project.pk: project.name for project in open_figures(studio).projects}
    units = {tide.item.pk: tide.item.unit for tide in tides}
    late = {names[pk]: row.late_days for pk, row in plan.rows.items() if row.late_days and pk in names}
    short = {
        (pk, need.item_id): Short(names[pk], need.item_name, need.short, units.get(need.item_id, "g"))
        for pk, needs in shorts_by_project(studio).items()
        if pk in names
        for need in needs
    }
    wanted = [tide for tide in tides if tide.to_order]
    orders = {
        tide.item.pk: ToOrder(tide.item.name, tide.order_by, tide.outlook.order_g, tide.item.unit) for tide in wanted
    }
    postage = {tide.supplier.pk: tide.supplier.postage for tide in wanted if tide.supplier}
    goods = sum((Decimal(str(tide.outlook.chosen.cost)) for tide in wanted if tide.supplier), ZERO)
    return Seen(late, short, orders, to_cent(goods + sum(postage.values(), ZERO)))


@dataclass(frozen=True)
class Tried:
    """What is, what would be, and why a change cannot be, by project."""

    before: Seen
    after: Seen
    refused: dict[UUID, str]

    @property
    def late(self) -> list[tuple[str, int, int]]:
        """Projects whose lateness changes: days before and after."""
        names = {**self.before.late, **self.after.late}
        rows = [(name, self.before.late.get(name, 0), self.after.late.get(name, 0)) for name in names]
        return sorted((row for row in rows if row[1] != row[2]), key=lambda row: row[1] - row[2])

    @property
    def short(self) -> list[tuple[Short, Decimal, Decimal]]:
        """Wools of which more or less is short: before and after."""
        both = {**self.before.short, **self.after.short}
        rows = [
            (each, _amount(self.before.short.get(key)), _amount(self.after.short.get(key)))
            for key, each in both.items()
        ]
        return [row for row in rows if row[1] != row[2]]

    @property
    def orders(self) -> list[tuple[ToOrder | None, ToOrder | None]]:
        """What is to be ordered otherwise: before and after."""
        keys = list({**self.before.orders, **self.after.orders})
        rows = [(self.before.orders.get(key), self.after.orders.get(key)) for key in keys]
        return [row for row in rows if row[0] != row[1]]

    @property
    def cost_more(self) -> Decimal:
        """What parcels cost more; below zero where less."""
        return self.after.cost - self.before.cost

    @property
    def cost_less(self) -> Decimal:
        return -self.cost_more


def _amount(short: Short | None) -> Decimal:
    return short.amount if short else ZERO


class _Back(Exception):
    """Raised to take a trial back."""


def tried(member: Member, do: Callable[[Member], dict[UUID, str]], look: Callable[[Studio], str]) -> tuple[Tried, str]:
    """What `do` would come to (it gives why a change cannot be, by project), and what `look` draws of the studio as it would
    be. Nothing of it stays, nor is kept. Raises what `do` raises.
    """
    before = seen(member.studio)
    found: list[tuple[Tried, str]] = []
    try:
        with nothing_kept(), transaction.atomic():
            refused = do(Member.objects.select_related("studio").get(pk=member.pk))
            anew = Member.objects.select_related("studio").get(pk=member.pk).studio
            found.append((Tried(before, seen(anew), refused), look(anew)))
            raise _Back
    except _Back:
        pass
    return found[0]


def moved(changes: Sequence[Change]) -> Callable[[Member], dict[UUID, str]]:
    """Moving the projects, for `tried`."""

    def do(member: Member) -> dict[UUID, str]:
        refused: dict[UUID, str] = {}
        for change in changes:
            try:
                move_project(member, change.project, count=change.count, due=change.due)
            except Refusal as trouble:
                refused[change.project] = trouble.message
        return refused

    return do


@transaction.atomic
def keep(member: Member, changes: Iterable[Change], as_they_were: Iterable[Change]) -> None:
    """Change the projects for good, all or none. Raises `Refusal` where one of them was changed since it was tried."""
    were = {change.project: change for change in as_they_were}
    now = {
        project.pk: Change(project.pk, project.due, project.count) for project in open_figures(member.studio).projects
    }
    for change in changes:
        there = now.get(change.project)
        if there is None or there != were.get(change.project):
            raise Refusal("One of these projects was changed meanwhile. Look at it once more, then keep it.")
        move_project(member, change.project, count=change.count, due=change.due)
