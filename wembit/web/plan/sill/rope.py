"""The rope: strands of work by day, as thick as the hours they take, upon each other, under a line of the hours there are.

Everything here is in px along the days (`along`) and across them (`across`, from the rope's base upwards).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

ROUND = 0.22  # of a day, in which a strand goes over into its thickness of the next one
Point = tuple[float, float]
A_LITTLE_H = 0.05  # over the hours that nobody sees
HEAP_DAYS = 7  # over which what is over is laid


@dataclass(frozen=True)
class Work:
    """A strand before it is laid: hours by day (counted from today) that are done and that are to be done, the hours for which
    no day is left, the day it is due, and the share of what is to be done for which there is wool.
    """

    done: Mapping[int, float]
    to_do: Mapping[int, float]
    over: float
    due: int
    reach: float = 1.0

    def hours(self, day: int) -> float:
        return self.done.get(day, 0.0) + self.to_do.get(day, 0.0)

    @property
    def first(self) -> int:
        return min([*self.done, *self.to_do, max(self.due, 0)])

    @property
    def last(self) -> int:
        return max(self.due, 0, *self.done, *self.to_do)

    @property
    def dry_from(self) -> int | None:
        """The first day for whose work there is no wool."""
        whole, so_far = sum(self.to_do.values()), 0.0
        if self.reach >= 1.0 or not whole:
            return None
        for day in sorted(self.to_do):
            so_far += self.to_do[day]
            if so_far > self.reach * whole + 1e-9:
                return day
        return None

    def heap(self) -> Mapping[int, float]:
        """What is over, laid on the days before its due day, or on those from today on where that has passed."""
        if self.over <= A_LITTLE_H:
            return {}
        last = self.due if self.due >= 0 else HEAP_DAYS - 1
        days = range(max(0, last - HEAP_DAYS + 1), last + 1)
        return dict.fromkeys(days, self.over / len(days))


@dataclass(frozen=True)
class Band:
    """Closed path data between a lower and an upper edge."""

    points: Sequence[tuple[float, float, float]]  # along, lower and upper edge across


@dataclass(frozen=True)
class Strand:
    """A strand as it lies: what is spun (made), what is loose, what has no wool, what lies above the hours; and where it rises
    to its figure. Any of them may be empty.
    """

    spun: Band
    loose: Band
    dry: Band
    heap: Band
    rises: Point


@dataclass
class _Stack:
    """How high the strands lie on each day so far."""

    high: dict[int, float] = field(default_factory=dict)

    def lay(self, day: int, thick: float) -> tuple[float, float]:
        low = self.high.get(day, 0.0)
        self.high[day] = low + thick
        return low, low + thick


@dataclass(frozen=True)
class Rope:
    """The strands in the order given, and how high they lie together on each day, in hours."""

    strands: list[Strand]
    high: Mapping[int, float]

    @property
    def most(self) -> float:
        """The most that anything rises."""
        return max(self.high.values(), default=0.0)


def centre(edges: Mapping[int, float], day: int) -> float:
    """Where the middle of a day is."""
    return (edges[day] + edges[day + 1]) / 2


def flat(edges: Mapping[int, float], day: int) -> tuple[float, float]:
    """Between which places something keeps its height of that day."""
    bend = ROUND * (edges[day + 1] - edges[day])
    return edges[day] + bend, edges[day + 1] - bend


def rope(works: Sequence[Work], edges: Mapping[int, float]) -> Rope:
    """Strands upon each other, what is due last at the base. `edges`: where each day begins, from the first shown to one
    beyond the last; days outside are left out. All heights in hours.
    """
    stack = _Stack()
    first, last = min(edges), max(edges) - 1
    order = sorted(range(len(works)), key=lambda which: (-works[which].due, which))
    laid: dict[int, list[tuple[int, float, float]]] = {}
    for which in order:
        work = works[which]
        days = range(max(first, work.first), min(last, work.last) + 1)
        laid[which] = [(day, *stack.lay(day, work.hours(day))) for day in days]
    heaps: dict[int, list[tuple[int, float, float]]] = {}
    for which in order:
        heap = works[which].heap()
        heaps[which] = [(day, *stack.lay(day, hours)) for day, hours in heap.items() if day <= last]
    strands = [_strand(work, laid[which], heaps[which], edges) for which, work in enumerate(works)]
    return Rope(strands, stack.high)


def _strand(
    work: Work, rows: Sequence[tuple[int, float, float]], heap: Sequence[tuple[int, float, float]], edges: Mapping
) -> Strand:
    today = sum(row[0] < 0 for row in rows)
    dry_from = work.dry_from
    dry = len(rows) if dry_from is None else sum(row[0] < max(0, dry_from) for row in rows)
    end = next((row for row in rows if row[0] == max(work.due, 0)), rows[-1] if rows else (0, 0.0, 0.0))
    top = max([end[2], *(row[2] for row in heap if row[0] == end[0])])
    return Strand(
        _band(rows, 0, today, edges),
        _band(rows, today, dry, edges),
        _band(rows, dry, len(rows), edges),
        _band(heap, 0, len(heap), edges),
        (centre(edges, end[0]), top),
    )


def _band(rows: Sequence[tuple[int, float, float]], start: int, end: int, edges: Mapping[int, float]) -> Band:
    """Some of the days of a strand, from the beginning of the first to the end of the last one: it has its thickness for
    most of each day, goes on into its neighbours, and tapers where it ends.
    """
    if start >= end:
        return Band([])

    def border(at: int, along: float) -> tuple[float, float, float]:
        """Between the row before `at` and that one."""
        if 0 < at < len(rows):
            (_, low, high), (_, low_too, high_too) = rows[at - 1], rows[at]
            return along, (low + low_too) / 2, (high + high_too) / 2
        _, low, high = rows[min(at, len(rows) - 1)]
        return along, (low + high) / 2, (low + high) / 2

    inside = [(along, low, high) for day, low, high in rows[start:end] for along in flat(edges, day)]
    return Band([border(start, edges[rows[start][0]]), *inside, border(end, edges[rows[end - 1][0] + 1])])


def edge_path(points: Sequence[Point], *, upright: bool = False) -> str:
    """Path data of a line through points (along, across): each bend levels out at its point, so that two lines that do not
    cross at the points do not cross between them. `upright`: along is y.
    """

    def told(*pairs: Point) -> str:
        return " ".join(f"{y:.1f} {x:.1f}" if upright else f"{x:.1f} {y:.1f}" for x, y in pairs)

    path = told(points[0])
    for (along0, across0), (along1, across1) in pairwise(points):
        half = (along0 + along1) / 2
        path += f"C{told((half, across0), (half, across1), (along1, across1))}"
    return path
