"""What runs out, when, and by which day to order how much: time-phased netting of dated demands and receipts.

Source: time-phased order point of material requirements planning (J. Orlicky, Material Requirements Planning, 1975). Where
demands have a range, or there is a habit of unplanned use, it runs out on the first day on which the odds of having run short
pass what the service asked for leaves (chances.py), and what is ordered holds with the odds of that service.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammaincinv

from .chances import A_TRACE, RARE, SCARCE, Case, Wanted, lowest, odds
from .packs import Chosen, Priced, cheapest

WEEK = 7
HARDLY = 1.5  # the gamma shape of what a habit has used so far, below which it is mostly next to nothing


@dataclass(frozen=True)
class Dated:
    """An amount on a day; of a demand the median, with the scatter of its logarithm."""

    date: dt.date
    grams: float
    sigma: float = 0.0


@dataclass(frozen=True)
class Habit:
    """Unplanned use: grams a week, and their standard deviation."""

    weekly_g: float = 0.0
    weekly_sd_g: float = 0.0


@dataclass(frozen=True)
class Fibre:
    """All that says how long a fibre lasts: what is there, what comes, what is wanted, the habit; how long an order takes,
    with its standard deviation, in days; the packs to be had as (grams, price), and for how many days an order is to reach.
    """

    on_hand: float
    demands: Sequence[Dated] = ()
    receipts: Sequence[Dated] = ()
    habit: Habit = Habit()
    lead_days: float = 0.0
    lead_sd_days: float = 0.0
    packs: Sequence[tuple[float, float] | Priced] = ()
    cover_days: int = 60


@dataclass(frozen=True)
class Level:
    """At the end of a day: the odds of having run short by then, and the balance that is not reached one time in ten, half of
    the time, nine times in ten.
    """

    date: dt.date
    short: float
    p10: float
    p50: float
    p90: float


@dataclass(frozen=True)
class Outlook:
    """When it runs out, by when to order how much; `order_by` is today when it is already late."""

    runs_out: dt.date | None
    order_by: dt.date | None
    late: bool
    order_g: float
    chosen: Chosen


NEVER = Outlook(None, None, False, 0.0, Chosen((), 0.0, 0.0))


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


@dataclass(frozen=True)
class Future:
    """The outlook of a fibre, and its levels today and every seventh day after."""

    outlook: Outlook
    levels: tuple[Level, ...]


def futures(today: dt.date, fibres: Sequence[Fibre], *, service: float = 0.9, horizon_days: int = 180) -> list[Future]:
    """The future of each fibre. The odds of having run short by a day are those of a lognormal demand a date, a gamma process
    a habit, all independent; receipts arrive in the morning; earlier dates count as today's.
    """
    days = horizon_days + max((fibre.cover_days for fibre in fibres), default=0) + 1
    cases = [_case(today, fibre, days) for fibre in fibres]
    rows = list(range(0, horizon_days + 1, WEEK))
    unsure = [at for at, case in enumerate(cases) if not case.is_sure]
    some = _unsure(today, [cases[at] for at in unsure], rows, horizon_days, [fibres[at] for at in unsure], service)
    found = dict(zip(unsure, some, strict=True))
    return [
        found[at] if at in found else _sure(today, case, rows, horizon_days, fibre, service)
        for at, (case, fibre) in enumerate(zip(cases, fibres, strict=True))
    ]


def _unsure(
    today: dt.date,
    cases: Sequence[Case],
    rows: Sequence[int],
    horizon_days: int,
    fibres: Sequence[Fibre],
    service: float,
) -> list[Future]:
    """The futures of what is left to chance."""
    if not cases:
        return []
    chances = odds(cases, rows, horizon_days, 1 - service)
    first = chances.passed.tolist()
    out = [at for at, day in enumerate(first) if day >= 0]
    last = [first[at] + fibres[at].cover_days for at in out]
    missing = lowest([cases[at] for at in out], [first[at] for at in out], last, service)
    grams = dict(zip(out, missing.tolist(), strict=True))
    return [
        Future(
            _outlook(today, fibre, first[at] if at in grams else None, grams.get(at, 0.0), service),
            tuple(
                Level(today + dt.timedelta(day), short, *balance)
                for day, short, balance in zip(
                    rows, chances.short[at].tolist(), chances.balance[at].tolist(), strict=True
                )
            ),
        )
        for at, fibre in enumerate(fibres)
    ]


def _case(today: dt.date, fibre: Fibre, days: int) -> Case:
    """The fibre by days from today on."""
    changes = np.zeros(days)
    at_most = np.full(days, float(fibre.on_hand))
    arrivals, wanted = set(), []
    for each in fibre.receipts:
        day = max(0, (each.date - today).days)
        if day < days and each.grams > 0:
            changes[day] += each.grams
            at_most[day:] += each.grams
            arrivals |= {day} - {0}
    for each in fibre.demands:
        day = max(0, (each.date - today).days)
        if day < days and each.grams > 0:
            changes[day] -= each.grams
            if each.sigma > 0:
                wanted.append(Wanted(day, each.grams, each.sigma))
            else:
                at_most[day:] -= each.grams
    mean, sd = fibre.habit.weekly_g, fibre.habit.weekly_sd_g
    random = mean > 0 and sd > 0
    shape, scale = (mean**2 / (WEEK * sd**2), sd**2 / mean) if random else (0.0, 0.0)
    there = fibre.on_hand + np.cumsum(changes)
    rare = random and (WEEK * shape < RARE or float(there.max()) < SCARCE * sd or _is_soon_scarce(there, shape, sd))
    steady = 0.0 if rare else mean / WEEK
    middles = there - steady * np.arange(1, days + 1)
    unsure_from = 0 if random else min((each.day for each in wanted), default=days)
    sunk = np.flatnonzero(at_most[unsure_from:] <= A_TRACE)  # something is used for sure
    sunk_on = unsure_from + int(sunk[0]) if len(sunk) else -1
    return Case(middles, shape, scale, tuple(wanted), tuple(sorted(arrivals)), steady, rare, sunk_on)


def _is_soon_scarce(there: NDArray[np.float64], shape: float, weekly_sd: float) -> bool:
    """Whether next to nothing is there while a habit has hardly begun: all then hangs on its smallest uses."""
    soon = there[: max(1, math.ceil(HARDLY / shape))]
    return bool(((soon >= -A_TRACE) & (soon < SCARCE * weekly_sd)).any())


def _sure(today: dt.date, case: Case, rows: Sequence[int], horizon_days: int, fibre: Fibre, service: float) -> Future:
    """The future of what leaves nothing to chance."""
    short = np.flatnonzero(case.middles[: horizon_days + 1] < -A_TRACE)
    first = int(short[0]) if len(short) else None
    levels = tuple(
        Level(today + dt.timedelta(day), float(first is not None and first <= day), *[float(case.middles[day])] * 3)
        for day in rows
    )
    grams = 0.0 if first is None else -float(case.middles[first : first + fibre.cover_days + 1].min())
    return Future(_outlook(today, fibre, first, grams, service), levels)


def _outlook(today: dt.date, fibre: Fibre, first: int | None, grams: float, service: float) -> Outlook:
    runs_out = None if first is None else today + dt.timedelta(first)
    lead = lead_time(fibre.lead_days, fibre.lead_sd_days, service)
    return ordered(today, runs_out, grams, lead, fibre.packs)


def ordered(
    today: dt.date,
    runs_out: dt.date | None,
    grams: float,
    lead_days: int,
    packs: Sequence[tuple[float, float] | Priced],
) -> Outlook:
    """By when to order how much of what runs out on that day: so that it comes on that morning, in the cheapest packs."""
    if runs_out is None:
        return NEVER
    latest = runs_out - dt.timedelta(lead_days)
    chosen = cheapest(grams, list(packs)) if packs else NEVER.chosen
    return Outlook(runs_out, max(latest, today), latest < today, grams, chosen)


def lead_time(mean: float, sd: float, service: float) -> int:
    """The days within which a delivery is there with those odds: of a gamma with that mean and standard deviation."""
    if sd <= 0 or mean <= 0:
        return math.ceil(mean)
    shape = (mean / sd) ** 2
    return math.ceil(float(gammaincinv(shape, service)) * mean / shape)
