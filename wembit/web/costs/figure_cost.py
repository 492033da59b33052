"""What a figure costs: wool, things and time as planned, and as its makings used them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.craft.notions import in_unit
from wembit.core.stock.costing import ZERO, Costed, asked, of_time, total
from wembit.web.decimals import decimal
from wembit.web.figures.materials_list.materials import Batch, listing
from wembit.web.figures.order_of_work.order import order_of
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, plan_figure, sums
from wembit.web.stash.prices import prices
from wembit.web.stash.queries import colours

from . import queries

if TYPE_CHECKING:
    from wembit.web.bench.models import Making
    from wembit.web.figures.models import Figure
    from wembit.web.studio.models import Studio

RATE, MARK_UP = "hour_rate", "mark_up"  # among the studio's habits: money an hour, percent
MAKINGS = 8  # the newest ones shown
BAR_PX = 640.0


@dataclass(frozen=True)
class Row:
    """One line of what a figure costs, and how it is drawn: its colour (empty for what is no wool), where it begins, in px."""

    line: Costed
    unit: str
    colour: str
    x: float
    wide: float


@dataclass(frozen=True)
class FigureCost:
    """What one figure costs as planned; `price`: with the studio's mark-up, None while nobody has said a rate."""

    wool: list[Row]
    things: list[Row]
    minutes: float
    time: Decimal
    time_x: float
    time_wide: float
    all: Decimal
    price: Decimal | None
    unpriced: list[str]
    bar_px: float = BAR_PX


def rates(studio: Studio) -> tuple[Decimal | None, Decimal]:
    """What an hour is worth, None while nobody has said, and the mark-up in percent."""
    rate = studio.habits.get(RATE)
    return (None if rate is None else Decimal(rate)), Decimal(studio.habits.get(MARK_UP, "0"))


def figure_cost(figure: Figure) -> FigureCost:
    """As the newest version plans it, in its first colourway."""
    studio, version = figure.studio, newest_version(figure)
    version.figure = figure
    parts, palette = parts_of(version), Palette.of(colourway_of(version))
    plan = plan_figure(version, parts, palette)
    grams: dict[UUID, tuple[str, float]] = {}
    bare = []
    for need in sums(plan):
        if need.item is None:
            bare.append(need.slot_name)
        else:
            name, before = grams.get(need.item.pk, (need.item.name, 0.0))
            grams[need.item.pk] = name, before + need.grams.p50
    things = [row for row in listing(version, [Batch(parts, plan, 1)], palette)["things"] if row.needed.notion]
    found = [(row, UUID(row.found.id)) for row in things if row.found]
    each = prices(studio, [*grams, *(pk for _, pk in found)])
    wool = [(Costed(name, decimal(round(much, 3)), each.get(pk)), "g", pk) for pk, (name, much) in grams.items()]
    rest = [
        (Costed(row.found.name, decimal(in_unit(row.needed, row.found.unit, 1)), each.get(pk)), row.found.unit, pk)
        for row, pk in found
        if row.found
    ]
    minutes = sum(line.step.minutes for line in order_of(version, parts, plan))
    rate, mark_up = rates(studio)
    time = of_time(minutes, rate or ZERO)
    lines = [line for line, _, _ in (*wool, *rest)]
    cost = total(lines) + time
    scale = BAR_PX / float(cost) if cost else 0.0
    seen = colours(studio, grams)
    drawn, x = [], 0.0
    for line, unit, pk in (*wool, *rest):
        wide = float(line.cost) * scale
        drawn.append(Row(line, unit, seen.get(pk, ""), round(x, 1), round(wide, 1)))
        x += wide
    lacking = [line.name for line in lines if line.each is None]
    missing = [row.needed.words for row in things if not row.found]
    return FigureCost(
        drawn[: len(wool)], drawn[len(wool) :], minutes, time, round(x, 1), round(float(time) * scale, 1), cost,
        asked(cost, mark_up) if rate is not None else None, [*bare, *lacking, *missing],
    )  # fmt: skip


@dataclass(frozen=True)
class MadeCost:
    """What one making cost in wool and things, by what the bags cost that it was taken from."""

    making: Making
    cost: Decimal
    unpriced: bool


def made_costs(studio: Studio, figure: Figure) -> list[MadeCost]:
    """The newest finished makings of a figure. A bounded number of queries."""
    makings = queries.finished(studio, figure, MAKINGS)
    rows = queries.taken_for(makings)
    each = prices(studio, {bag.item for _, bag in rows})
    by_making: dict[UUID, list[Costed]] = {making.pk: [] for making in makings}
    for making, bag in rows:
        by_making[making].append(bag.costed(each))
    return [
        MadeCost(making, total(by_making[making.pk]), any(line.each is None for line in by_making[making.pk]))
        for making in makings
        if by_making[making.pk]
    ]


def middle(costs: Sequence[MadeCost]) -> Decimal | None:
    """The mean of what makings cost; None without any."""
    return total([Costed("", Decimal(1), made.cost) for made in costs]) / len(costs) if costs else None
