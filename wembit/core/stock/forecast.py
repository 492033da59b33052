"""What runs out, when, and by which day to order how much: time-phased netting of dated demands and receipts.

Source: time-phased order point of material requirements planning (J. Orlicky, Material Requirements Planning, 1975).
Demands are exact here; ranges and habit of use are not built yet.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from .packs import Chosen, cheapest

A_TRACE = 1e-6  # grams below which a balance counts as exactly 0


@dataclass(frozen=True)
class Dated:
    """An amount on a day."""

    date: dt.date
    grams: float


@dataclass(frozen=True)
class Outlook:
    """When it runs out, by when to order how much; `order_by` is today when it is already late."""

    runs_out: dt.date | None
    order_by: dt.date | None
    late: bool
    order_g: float
    chosen: Chosen


NEVER = Outlook(None, None, False, 0.0, Chosen((), 0.0, 0.0))


def forecast(
    today: dt.date,
    on_hand: float,
    demands: Iterable[Dated],
    receipts: Iterable[Dated],
    *,
    lead_days: float,
    packs: Sequence[tuple[float, float]],
    horizon_days: int = 180,
    cover_days: int = 60,
) -> Outlook:
    """The outlook of one fibre in grams. Receipts come in the morning; earlier dates count as today's."""
    demands = list(demands)
    if sum(each.grams for each in demands) <= on_hand:  # no day needs more
        return NEVER
    steps = balances(today, on_hand, demands, receipts)
    last = today + dt.timedelta(horizon_days)
    runs_out = next((step.date for step in steps if step.grams < -A_TRACE and step.date <= last), None)
    if runs_out is None:
        return NEVER
    covered = runs_out + dt.timedelta(cover_days)
    order_g = -min(step.grams for step in steps if runs_out <= step.date <= covered)
    latest = runs_out - dt.timedelta(math.ceil(lead_days))
    chosen = cheapest(order_g, list(packs)) if packs else Chosen((), 0.0, 0.0)
    return Outlook(runs_out, max(latest, today), latest < today, order_g, chosen)


def balances(today: dt.date, on_hand: float, demands: Iterable[Dated], receipts: Iterable[Dated]) -> list[Dated]:
    """The balance at the end of today and of every day on which something changes, in order."""
    changes: dict[dt.date, float] = {today: 0.0}
    for sign, dated in ((-1, demands), (1, receipts)):
        for each in dated:
            date = max(each.date, today)
            changes[date] = changes.get(date, 0.0) + sign * each.grams
    steps, balance = [], on_hand
    for date in sorted(changes):
        balance += changes[date]
        steps.append(Dated(date, balance))
    return steps


def weekly(today: dt.date, steps: Sequence[Dated], horizon_days: int) -> list[Dated]:
    """The balance today and every seventh day after, not beyond the horizon."""
    rows, index = [], 0
    for offset in range(0, horizon_days + 1, 7):
        date = today + dt.timedelta(offset)
        while index + 1 < len(steps) and steps[index + 1].date <= date:
            index += 1
        rows.append(Dated(date, steps[index].grams))
    return rows
