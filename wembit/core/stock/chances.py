"""How much will have been used, and the odds of having run short, by convolution on a grid.

What is used until a day is what is expected, which is exact, and a deviation from it: of the habit, a gamma process (mean and
variance of a day: those of a week by seven), and of dated demands, lognormal about their medians. The deviation's distribution
stands on a grid, many fibres at once, and is convolved by FFT with what each week brings. A fibre runs short where the
deviation passes what the exact balance leaves; as long as nothing arrives the balance only falls, so it is enough to look
before each arrival and on the day that is asked about. The grid is as fine as the spread so far asks for, and doubled as that
grows.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.fft import irfft, rfft
from scipy.special import gammainc, gammaincinv, gammaln, ndtr, ndtri

Array = NDArray[np.float64]
CELLS, ZERO_AT = 384, 120  # of a grid, and which of them is no deviation
BELOW, ABOVE = 5.0, 11.0  # spreads that the grid reaches
TAIL, MIDDLES = (
    0.998,
    0.97,
)  # of a lognormal demand that the grid holds at least, and where only the middle is asked for
A_TRACE = 1e-6  # grams below which a balance counts as exactly 0
LEAST_TOP = 1e-3  # grams that a grid is fit for where nothing is there: the first that is used is short
Z90 = 1.2815515655446004
WEEK = 7
LOOKS = 24  # days on which the spread of a rare use is reckoned
RARE, SCARCE = 0.5, 0.2  # the gamma shape of a week below which hardly anything is used, or very much; of the standard
# deviation of a week: what is there is so little that it hangs on the smallest uses
HEAVY = 0.8  # scatter of logarithms from which a demand's tail is told apart from what matters
TRIED, NARROWED = 16, 4  # amounts at once, and how often


@dataclass(frozen=True)
class Wanted:
    """A demand: its day, counted from today, its median in g and its scatter of logarithms."""

    day: int
    grams: float
    sigma: float


@dataclass(frozen=True)
class Case:
    """A fibre: the exact end-of-day balances (days,) with medians and `steady` of all that is used, the habit of a day as
    shape and scale of its gamma increment (shape 0: none; `is_rare`: mostly nothing, then much), the demands that scatter,
    and the days on which something arrives; `sunk`: the first day on which it is short for sure, −1 for none.
    """

    middles: Array
    shape: float
    scale: float
    wanted: tuple[Wanted, ...]
    arrivals: tuple[int, ...]
    steady: float = 0.0
    is_rare: bool = False
    sunk: int = -1

    @property
    def is_heavy(self) -> bool:
        """Whether tails reach far beyond what matters."""
        return self.is_rare or any(each.sigma > HEAVY for each in self.wanted)

    @property
    def is_sure(self) -> bool:
        """Whether nothing of it is left to chance."""
        return self.shape <= 0 and not self.wanted


@dataclass(frozen=True)
class Odds:
    """Of each case (n, rows): the odds of having run short by the days asked for, and the tenth, fiftieth and ninetieth
    percentile of the balance (n, rows, 3); the first day on which the odds pass the limit, −1 for none.
    """

    short: Array
    balance: Array
    passed: NDArray[np.int64]


class _Grid:
    """The deviations of some cases at one moment, as masses (n, CELLS) of cells `width` (n,) wide; `alive`: of those that
    never ran short. A width of 0: nothing is left to chance so far.
    """

    def __init__(self, cases: Sequence[Case], top: Array | None, tail: float = TAIL) -> None:
        self.cases = list(cases)
        count, days = len(cases), max(len(case.middles) for case in cases)
        self.day = np.full(count, -1)
        self.width = np.zeros(count)
        self.mass = np.zeros((count, CELLS), dtype=np.float32)
        self.mass[:, ZERO_AT] = 1.0
        self.alive = self.mass.copy()
        self.tracked = np.array([bool(case.arrivals) for case in cases])
        self.shape = np.array([case.shape for case in cases])
        self.scale = np.array([case.scale for case in cases])
        self.steady = np.array([case.steady for case in cases])
        self.needed = np.array([_needed(case, days, tail) for case in cases])
        if top is not None:  # what is used beyond it is short for good, so that it need not be told apart
            most = np.maximum(top, LEAST_TOP) / (CELLS - ZERO_AT - 2)
            self.needed[:, 1, :] = np.minimum(self.needed[:, 1, :], most)
        self.needed = self.needed.max(axis=1)
        self.is_one = len(cases) == 1
        self.kept: tuple[Array, Array, NDArray[np.complex128]] | None = None

    def part(self, rows: NDArray[np.int64]) -> _Grid:
        """Some of the cases, as they are at this moment."""
        some = object.__new__(_Grid)
        some.cases = [self.cases[int(row)] for row in rows]
        for name in ("day", "width", "mass", "alive", "tracked", "shape", "scale", "steady", "needed"):
            setattr(some, name, getattr(self, name)[rows].copy())
        some.kept = None
        some.is_one = len(rows) > 0 and bool((rows == rows[0]).all())
        return some

    def go_on(self, until: NDArray[np.int64]) -> None:
        """Let time pass until the end of a day each (n,)."""
        self._widen(until)
        rows = np.flatnonzero((self.shape > 0) & (self.width > 0) & (until > self.day))
        if len(rows):
            self._convolve(rows, self._habit(self._told_apart(rows), until - self.day))
        due: dict[int, list[Wanted]] = {}
        for row, (case, day, last) in enumerate(zip(self.cases, self.day.tolist(), until.tolist(), strict=True)):
            if case.wanted and (mine := [each for each in case.wanted if day < each.day <= last]):
                due[row] = mine
        while due:  # one of each case at once
            some = np.array([row for row in due if self.width[row] > 0], dtype=int)
            if len(some):
                apart = self._told_apart(some)
                self._convolve(some, self._demand(apart, [due[int(row)][-1] for row in apart]))
            due = {row: mine[:-1] for row, mine in due.items() if len(mine) > 1}
        self.day = until.copy()

    def _told_apart(self, rows: NDArray[np.int64]) -> NDArray[np.int64]:
        """One of them where all are the same case, to the same day: what is added is the same."""
        return rows[:1] if self.is_one else rows

    def _convolve(self, rows: NDArray[np.int64], spectrum: NDArray[np.complex128]) -> None:
        """Add an independent deviation; what falls below the grid lies in its lowest cell, what passes it is gone."""
        self.mass[rows] = _added(self.mass[rows], spectrum)
        if (some := np.flatnonzero(self.tracked[rows])).size:
            self.alive[rows[some]] = _added(self.alive[rows[some]], spectrum if self.is_one else spectrum[some])

    def _widen(self, until: NDArray[np.int64]) -> None:
        """Wider cells where the spread has outgrown them."""
        wanted = self.needed[np.arange(len(until)), until]
        new = (self.width == 0) & (wanted > 0)
        self.width[new] = wanted[new]
        while len(rows := np.flatnonzero(self.width < wanted * (1 - 1e-9))):
            self.width[rows] *= 2
            for name in ("mass", "alive"):
                getattr(self, name)[rows] = _halved(getattr(self, name)[rows])

    def _cells(self, rows: NDArray[np.int64]) -> Array:
        """The middles of the cells (n, CELLS), as deviations in g."""
        return np.asarray((np.arange(CELLS) - ZERO_AT) * self.width[rows][:, None])

    def _habit(self, rows: NDArray[np.int64], days: NDArray[np.int64]) -> NDArray[np.complex128]:
        """The spectrum of what the habit adds in so many days each; the last one is kept while days and cells stay."""
        if self.kept is None:
            count = len(self.width)
            self.kept = np.zeros(count), np.zeros(count), np.zeros((count, CELLS + 1), dtype=np.complex64)
        kept_days, kept_width, kept = self.kept
        stale = rows[(kept_days[rows] != days[rows]) | (kept_width[rows] != self.width[rows])]
        if len(stale):
            shapes, scale = (self.shape[stale] * days[stale])[:, None], self.scale[stale][:, None]
            steady = (self.steady[stale] * days[stale])[:, None]
            used = np.maximum(self._cells(stale) + steady, 0) / scale
            reached = gammainc(shapes, used)
            moment = shapes * scale * _next_gamma(shapes, used, reached) - steady * reached
            kept[stale] = _spectrum(reached, moment, self._cells(stale))
            kept_days[stale], kept_width[stale] = days[stale], self.width[stale]
        return kept[rows]

    def _demand(self, rows: NDArray[np.int64], wanted: Sequence[Wanted]) -> NDArray[np.complex128]:
        """The spectrum of a dated demand of each of those rows."""
        grams, sigma = (np.array([getattr(each, name) for each in wanted])[:, None] for name in ("grams", "sigma"))
        with np.errstate(divide="ignore"):
            logs = np.log(np.maximum(self._cells(rows) + grams, 0) / grams) / sigma
        reached = ndtr(logs)
        return _spectrum(reached, grams * (np.exp(sigma**2 / 2) * ndtr(logs - sigma) - reached), self._cells(rows))

    def within(self, most: Array) -> Array:
        """The share of each cell (n, CELLS) that lies at or below a deviation each (n,)."""
        width = np.where(self.width > 0, self.width, 1.0)[:, None]
        share = np.clip((most[:, None] + A_TRACE) / width - (np.arange(CELLS) - ZERO_AT - 0.5), 0, 1)
        sure = self.width == 0
        share[sure] = (most[sure] >= -A_TRACE)[:, None]
        return np.asarray(share)

    def survivors(self, most: Array) -> Array:
        """The odds (n,) of never having run short, where the deviation may not pass `most` (n,) at this moment."""
        share = self.within(most)
        return np.asarray((np.where(self.tracked[:, None], self.alive, self.mass) * share).sum(axis=1))

    def keep(self, rows: NDArray[np.int64], most: Array) -> None:
        """Of some cases only those go on whose deviation does not pass `most` (n,), before something arrives that hides it."""
        self.alive[rows] *= self.within(most)[rows]

    def quantiles(self, share: float | Array) -> Array:
        """The deviation (n,) that is not passed with those odds."""
        reached = self.mass.cumsum(axis=1, dtype=np.float64)
        wanted = np.minimum(np.broadcast_to(share, (len(reached),)), reached[:, -1] * (1 - 1e-12))
        at = (reached < wanted[:, None]).sum(axis=1)
        rows = np.arange(len(reached))
        here = np.maximum(self.mass[rows, at], 1e-300)
        before = np.where(at > 0, reached[rows, np.maximum(at - 1, 0)], 0.0)
        return np.asarray((at - ZERO_AT - 0.5 + (wanted - before) / here) * self.width)


def _next_gamma(shapes: Array, used: Array, reached: Array) -> Array:
    """`gammainc(shapes + 1, used)`, where `gammainc(shapes, used)` is `reached` (NIST Digital Library of Mathematical
    Functions, 8.8.5).
    """
    with np.errstate(divide="ignore"):
        return np.asarray(reached - np.exp(shapes * np.log(used) - used - gammaln(shapes + 1)))


def _spectrum(reached: Array, moment: Array, cells: Array) -> NDArray[np.complex128]:
    """The spectrum of a deviation whose distribution and first moment are told up to the middle of each cell (n, CELLS): what
    lies between two of them is shared by both so that the mean stays. No deviation stands first.
    """
    between, moments = np.diff(reached, axis=1), np.diff(moment, axis=1)
    width = cells[:, 1:2] - cells[:, :1]
    upper = np.clip(np.divide(moments - cells[:, :-1] * between, width), 0, between)
    turned = np.zeros((len(cells), 2 * CELLS), dtype=np.float32)
    mass = np.zeros_like(cells)
    mass[:, :-1] += between - upper
    mass[:, 1:] += upper
    mass[:, 0] += reached[:, 0]
    turned[:, : CELLS - ZERO_AT] = mass[:, ZERO_AT:]
    turned[:, 2 * CELLS - ZERO_AT :] = mass[:, :ZERO_AT]
    return np.asarray(rfft(turned))


def _added(mass: NDArray[np.floating], spectrum: NDArray[np.complex128]) -> Array:
    moved = irfft(rfft(mass, 2 * CELLS) * spectrum, 2 * CELLS)
    moved[:, 0] += moved[:, 2 * CELLS - ZERO_AT :].sum(axis=1)
    return np.maximum(moved[:, :CELLS], 0)


def _halved(mass: Array) -> Array:
    """Masses on cells twice as wide; what lies between two of them goes half and half."""
    after = np.zeros_like(mass)
    low, many = ZERO_AT // 2, CELLS // 2
    after[:, low : low + many] = mass[:, 0::2] + 0.5 * mass[:, 1::2]
    after[:, low + 1 : low + 1 + many] += 0.5 * mass[:, 1::2]
    return after


def _needed(case: Case, days: int, tail: float) -> Array:
    """The least width of a cell at the end of each day (2, days): so that the grid reaches far enough below, and above."""
    variance, reach = np.zeros(days), np.zeros(days)
    lowest = np.zeros(days)
    for each in case.wanted:
        if each.day < days:
            spread = each.grams * (np.exp(Z90 * each.sigma) - np.exp(-Z90 * each.sigma)) / (2 * Z90)
            far = each.grams * np.expm1(float(ndtri(tail)) * each.sigma) / ABOVE
            variance[each.day :] += spread**2
            reach[each.day :] += max(spread, far) ** 2
            lowest[each.day :] += each.grams
    passed = np.arange(1, days + 1)
    habit = far_habit = case.shape * case.scale**2 * passed
    if case.is_rare:
        some = np.unique(np.geomspace(1, days, LOOKS).round())  # what lies between two of them is near their line
        low, high, top = (
            np.interp(passed, some, case.scale * gammaincinv(case.shape * some, share))
            for share in (0.1, 0.9, max(tail, TAIL))
        )
        habit, far_habit = ((high - low) / (2 * Z90)) ** 2, np.maximum((high - low) / (2 * Z90), top / ABOVE) ** 2
    lowest += case.steady * passed
    below = np.minimum(BELOW * np.sqrt(variance + habit), lowest)
    return np.stack([below / (ZERO_AT - 2), ABOVE * np.sqrt(reach + far_habit) / (CELLS - ZERO_AT - 2)])


def odds(cases: Sequence[Case], rows: Sequence[int], last: int, limit: float) -> Odds:
    """The odds and balances of the days `rows`, and the first day up to `last` on which the odds pass `limit`."""
    count = len(cases)
    found = Odds(np.zeros((count, len(rows))), np.zeros((count, len(rows), 3)), np.full(count, -1))
    heavy = np.array([case.is_heavy for case in cases], dtype=bool)
    for part, is_heavy in ((np.flatnonzero(~heavy), False), (np.flatnonzero(heavy), True)):
        if len(part):
            some = _odds([cases[int(at)] for at in part], rows, last, limit, apart=is_heavy)
            found.short[part], found.balance[part], found.passed[part] = some.short, some.balance, some.passed
    for at, case in enumerate(cases):
        if 0 <= case.sunk <= last:
            found.short[at, np.asarray(rows) >= case.sunk] = 1.0
            passed = int(found.passed[at])
            found.passed[at] = case.sunk if passed < 0 else min(passed, case.sunk)
    return found


def _odds(cases: Sequence[Case], rows: Sequence[int], last: int, limit: float, *, apart: bool) -> Odds:
    """The same; `apart`: what can run short on a grid of its own, since tails reach far beyond it."""
    top = np.array([np.maximum.accumulate(case.middles) for case in cases]) if apart else None
    short = _Short(_Grid(cases, top), limit)
    wide = _Grid(cases, None, MIDDLES) if apart else short.grid
    found, balance = np.zeros((len(cases), len(rows))), np.zeros((len(cases), len(rows), 3))
    for day in sorted({*rows, last}):
        short.go_on(day)
        if day not in rows:
            continue
        at = list(rows).index(day)
        found[:, at] = short.odds
        if apart:
            wide.go_on(np.full(len(cases), day))
        middles = np.array([case.middles[day] for case in cases])
        for place, share in enumerate((0.9, 0.5, 0.1)):
            balance[:, at, place] = middles - wide.quantiles(share)
    return Odds(found, balance, short.passed)


class _Short:
    """The odds of having run short, week by week; day by day where something arrives, and to find the day of a limit."""

    def __init__(self, grid: _Grid, limit: float) -> None:
        self.grid, self.limit = grid, limit
        count = len(grid.cases)
        self.odds = np.zeros(count)
        self.passed = np.full(count, -1)
        self.at = -1

    def go_on(self, day: int) -> None:
        """Until the end of a day."""
        before = self.grid.part(np.flatnonzero(self.passed < 0))
        waiting = np.flatnonzero(self.passed < 0)
        busy = np.array([any(self.at < each <= day for each in case.arrivals) for case in self.grid.cases])
        held = self.grid.part(np.flatnonzero(busy))
        self.grid.go_on(np.full(len(self.odds), day))
        if busy.any():
            self._day_by_day(held, np.flatnonzero(busy), day)
        self.odds = np.maximum(self.odds, 1 - self.grid.survivors(self._middles(self.grid, day)))
        newly = np.flatnonzero((self.odds[waiting] > self.limit) & (self.passed[waiting] < 0))
        if len(newly):
            self._find(before.part(newly), waiting[newly], day)
        self.at = day

    def _middles(self, grid: _Grid, day: int) -> Array:
        return np.array([case.middles[day] for case in grid.cases])

    def _day_by_day(self, some: _Grid, rows: NDArray[np.int64], last: int) -> None:
        """Those for whom something arrives: looked at each day."""
        for day in range(self.at + 1, last + 1):
            arriving = np.array([at for at, case in enumerate(some.cases) if day in case.arrivals], dtype=int)
            if len(arriving):
                some.keep(arriving, self._middles(some, day - 1))
            some.go_on(np.full(len(rows), day))
            over = 1 - some.survivors(self._middles(some, day)) > self.limit
            self.passed[rows[over & (self.passed[rows] < 0)]] = day
        self.grid.alive[rows], self.grid.mass[rows], self.grid.width[rows] = some.alive, some.mass, some.width

    def _find(self, some: _Grid, rows: NDArray[np.int64], last: int) -> None:
        """The day within the week on which the limit was passed."""
        self.passed[rows] = last
        open_ = np.ones(len(rows), dtype=bool)
        for day in range(self.at + 1, last):
            some.go_on(np.full(len(rows), day))
            over = open_ & (1 - some.survivors(self._middles(some, day)) > self.limit)
            self.passed[rows[over]] = day
            open_ &= ~over
            if not open_.any():
                return


def lowest(cases: Sequence[Case], first: Sequence[int], last: Sequence[int], service: float) -> Array:
    """What is missing (n,), in g and not below 0, with those odds at most, of the lowest end-of-day balance from day `first`
    to day `last` each.
    """
    missing = np.zeros(len(cases))
    tail = 1 - (1 - service) / 4
    rows = list(zip(cases, first, last, strict=True))
    quiet = [at for at, (case, a, b) in enumerate(rows) if not any(a < each <= b for each in case.arrivals)]
    if quiet:
        grid = _Grid([cases[at] for at in quiet], None, tail)
        grid.go_on(np.array([last[at] for at in quiet]))
        missing[quiet] = grid.quantiles(service) - np.array([cases[at].middles[last[at]] for at in quiet])
    for at, (case, a, b) in enumerate(rows):
        if at not in set(quiet):
            missing[at] = _lowest_with_arrivals(case, a, b, service, tail)
    return np.maximum(missing, 0)


def _lowest_with_arrivals(case: Case, first: int, last: int, service: float, tail: float) -> float:
    """The same for one case into whose days something arrives: the least amount with which it is never short, by narrowing."""
    ends = sorted({each - 1 for each in case.arrivals if first < each <= last} | {last})
    start = _Grid([case], None, tail)
    over = start.part(np.array([0]))
    over.go_on(np.array([last]))
    high = float(over.quantiles(service)[0] - min(case.middles[day] for day in ends))
    low = min(-float(case.middles.max()), high - 1e-6)
    for _ in range(NARROWED):
        tried = np.linspace(low, high, TRIED)
        some, odds = start.part(np.zeros(TRIED, dtype=int)), np.zeros(TRIED)
        for day in ends:
            some.go_on(np.full(TRIED, day))
            odds = some.survivors(case.middles[day] + tried)
            some.keep(np.arange(TRIED), case.middles[day] + tried)
        enough = odds >= service
        at = int(np.argmax(enough)) if enough.any() else TRIED - 1
        low, high = float(tried[max(at - 1, 0)]), float(tried[at])
    return high
