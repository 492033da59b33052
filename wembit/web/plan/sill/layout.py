"""The sill laid out in px: days along it, figures upon it to one scale, the rope beneath, names above."""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from wembit.web import numbers
from wembit.web.plan.bench_plan import Hours
from wembit.web.plan.days_axis import DaysAxis, days_axis

from .figures import OnSill
from .label_rows import label_rows
from .rope import A_LITTLE_H, Band, Point, Rope, Strand, Work, centre, edge_path, flat, rope

LEFT_PX, WIDE_PX, RIGHT_PX = 24.0, 896.0, 40.0  # beside the days, and all of it where they have room
PX_PER_MM, TALLEST_PX = 0.55, 176.0  # of a figure; of the tallest one, for which all are drawn smaller
LEAST_TALL_PX = 60.0  # of the room for figures
PX_PER_HOUR, HIGHEST_PX, LOWEST_PX = 12.0, 132.0, 36.0  # of the rope
LABEL_ROW_PX, LETTER_PX, GAP_PX = 36.0, 7.2, 12.0  # of words
MOST_ROWS = 6  # of words; what has no room there is named beneath
LEAST_PX = 8.0  # of a day, roughly, where words reach beyond the last ones
ABOVE_PX, BOARD_PX, BENEATH_PX, FOOT_PX, DROP_PX = 10.0, 22.0, 26.0, 40.0, 12.0
GHOSTS, GHOST_PX = 9, 5.0  # outlines behind a figure at the most, and how far each stands beside the one before it
BACK_DAYS, BEYOND_DAYS = 21, 4  # shown before today at the most, and after the last due day
LEAST_DAYS = 28  # shown from today on
WEEK_WORDS_PX, DATE_PX = 54.0, 64.0
FINGER_PX = 48.0
NAME_PX = 22.0  # that a name reaches to either side of its middle
OVER_WIDE_PX, OVER_HIGH_PX = 84.0, 15.0  # of the words that say what is over


@dataclass(frozen=True)
class Laid:
    """A project's strand as path data: what is spun (made), loose (to be made), without wool, above the hours there are; and
    the end that rises to the figure. `over`: the hours above, told, at `over_x`, `over_y`.
    """

    spun: str
    loose: str
    dry: str
    heap: str
    rises: str
    over: str
    over_x: float
    over_y: float


@dataclass(frozen=True)
class Stood:
    """A project on the sill: its feet at x, y, px of a mm, the outlines behind it (how far aside in mm, whether that one is
    made, and its size), where its words stand, and its strand.
    """

    on: OnSill
    x: float
    y: float
    scale: float
    ghosts: list[tuple[float, bool, float]]
    words_y: float
    named: bool  # whether there is room for its words
    strand: Laid

    @property
    def top(self) -> float:
        return round(self.y - self.on.side.tall * self.scale, 1)

    @property
    def tall(self) -> float:
        """As high as the figure, and as a finger."""
        return round(max(FINGER_PX, self.on.side.tall * self.scale), 1)

    @property
    def shift(self) -> float:
        """What brings its middle above its feet, in mm."""
        return round(-self.on.side.left - self.on.side.width / 2, 1)

    @property
    def hold_x(self) -> float:
        return round(-self.wide / 2, 1)

    @property
    def label_x(self) -> float:
        return round(self.x + 5, 1)

    @property
    def name_y(self) -> float:
        return round(self.words_y - 16, 1)

    @property
    def wide(self) -> float:
        """As wide as the figure, and as a finger."""
        return round(max(FINGER_PX, self.on.side.long * self.scale), 1)


@dataclass(frozen=True)
class HoursLine:
    """The path of the hours of a maker upon those before her; her name, empty where she is alone, at `x`, `y`; `is_all`: of
    the last one.
    """

    path: str
    name: str
    x: float
    y: float
    is_all: bool


@dataclass(frozen=True)
class WeekMark:
    """A week under the rope: its Monday's place, and the hours that are planned of those there are, told."""

    x: float
    hours: str
    there: str
    is_over: bool


@dataclass(frozen=True)
class Sill:
    """All of it, in px. `lines`: the hours of each maker upon those before her, empty while nobody has said them; `axis` tells
    the script which day is where.
    """

    stood: list[Stood]
    weeks: list[WeekMark]
    dates: list[tuple[float, dt.date]]
    folds: list[tuple[float, float, int]]
    lines: list[HoursLine]
    today_x: float
    board_y: float
    base_y: float
    width: float
    scale: float
    axis: str
    board_px: float = BOARD_PX

    @property
    def height(self) -> float:
        return self.base_y + FOOT_PX

    @property
    def unnamed(self) -> list[OnSill]:
        """The projects whose words have no room above their figures."""
        return [each.on for each in self.stood if not each.named]

    @property
    def scale_mark(self) -> tuple[float, float, float]:
        """A line of 10 cm at the right end, above the board: x, y, length."""
        long = round(100 * self.scale, 1)
        return round(self.width - long - FINGER_PX, 1), round(self.board_y - ABOVE_PX, 1), long


def sill(rows: Sequence[OnSill], hours: Sequence[Hours], today: dt.date, mark: str) -> Sill:
    """From the earliest work that is done (at most 3 weeks back) to a week after the last due day. `hours` of the makers,
    empty while nobody has said; `mark`: the decimal mark.
    """
    words = [LETTER_PX * max(len(row.title), len(row.words)) + GAP_PX for row in rows]
    last = max([LEAST_DAYS, *(row.work.due for row in rows)])
    right = max([RIGHT_PX, *(wide - LEAST_PX * (last - row.work.due) for wide, row in zip(words, rows, strict=True))])
    axis = shown_days([row.work for row in rows], today, LEFT_PX, WIDE_PX - LEFT_PX - right)
    over = laid_over(axis, rows, hours, today)
    edges, there = over.edges, over.there
    most = max([over.rope.most, *there.values(), LOWEST_PX / PX_PER_HOUR])
    per_hour = min(PX_PER_HOUR, HIGHEST_PX / most)
    scale = min([PX_PER_MM, *(TALLEST_PX / row.side.tall for row in rows if row.side.tall)])

    places = [over.place(row.work.due) for row in rows]
    levels = _levels(places, words)
    tallest = max([LEAST_TALL_PX, *(row.side.tall * scale for row in rows)])
    board_y = LABEL_ROW_PX * (max([level for level in levels if level is not None], default=0) + 1) + ABOVE_PX + tallest
    base_y = board_y + BOARD_PX + BENEATH_PX + most * per_hour

    def y(hours: float) -> float:
        return base_y - hours * per_hour

    stood = []
    for row, x, level, strand in zip(rows, places, levels, over.rope.strands, strict=True):
        feet_y = board_y + (DROP_PX if row.work.due < 0 else 0.0)  # a late one stands off the sill
        words_y = board_y - tallest - ABOVE_PX - LABEL_ROW_PX * (level or 0)
        lies = drawn(row.work, strand, y, (x, board_y + BOARD_PX), mark)
        place = (round(x, 1), round(feet_y, 1), scale, _ghosts(row, scale), round(words_y, 1))
        stood.append(Stood(row, *place, level is not None, lies))
    stood = _apart(stood, board_y + BOARD_PX + OVER_HIGH_PX)
    ends = [x + wide for x, wide in zip(places, words, strict=True)]
    return Sill(
        stood,
        _weeks(axis, [row.work for row in rows], there, today, mark),
        dates_of(axis, DATE_PX),
        [(fold.x, fold.width, round(fold.days / 7)) for fold in axis.folds],
        lines_of(over, y),
        axis.x(today),
        round(board_y, 1),
        round(base_y, 1),
        max([edges[max(edges)] + RIGHT_PX, *ends]),
        scale,
        _told(axis),
    )  # fmt: skip


def shown_days(
    works: Sequence[Work], today: dt.date, start: float, wide: float, back_days: int = BACK_DAYS
) -> DaysAxis:
    """The days that are shown, from `start` px on, `wide` px of them where they are not too many."""
    first = max(min([0, *(min(work.first, work.due) for work in works)]), -back_days)
    first -= (today + dt.timedelta(first)).weekday()
    last = max([LEAST_DAYS, *(work.due + BEYOND_DAYS for work in works)])
    begins = [min(work.to_do) for work in works if work.to_do]
    marks = [today + dt.timedelta(day) for day in (0, *(work.due for work in works), *begins)]
    return days_axis(today + dt.timedelta(first), today + dt.timedelta(last), marks, start, wide)


def edges_of(axis: DaysAxis, today: dt.date) -> dict[int, float]:
    """Where each day begins, counted from today, and where the last one ends."""
    first, last = (axis.stretches[0].first - today).days, (axis.stretches[-1].end - today).days
    return {day: axis.x(today + dt.timedelta(day)) for day in range(first, last + 1)}


def _levels(places: Sequence[float], words: Sequence[float]) -> list[int | None]:
    """The row of each one's words; None for the last ones, where the words of all would take too many rows."""
    named = len(places)
    while max(rows := label_rows(places[:named], words[:named]), default=0) >= MOST_ROWS:
        named -= 1
    return [*rows, *[None] * (len(places) - named)]


def _apart(stood: Sequence[Stood], top: float) -> list[Stood]:
    """The hours over are told one above the other where they would lie on each other, and not above `top`: there the weeks
    say it.
    """
    told: list[tuple[float, float]] = []
    found = []
    for each in stood:
        lies = each.strand
        y = lies.over_y
        while lies.over and any(
            abs(lies.over_x - x) < OVER_WIDE_PX and abs(y - other) < OVER_HIGH_PX for x, other in told
        ):
            y -= OVER_HIGH_PX
        words = lies.over if y >= top else ""
        if words:
            told.append((lies.over_x, y))
        found.append(replace(each, strand=replace(lies, over=words, over_y=round(y, 1))))
    return found


@dataclass(frozen=True)
class LaidOver:
    """The rope over its days: where each day begins (counted from today) and the last one ends; by maker, the hours of her and
    of those before her by day.
    """

    edges: Mapping[int, float]
    upon: list[tuple[str, Mapping[int, float]]]
    rope: Rope

    @property
    def there(self) -> Mapping[int, float]:
        """The hours of all."""
        return self.upon[-1][1] if self.upon else {}

    def place(self, day: int) -> float:
        """The middle of a day; of one that is not shown, of the nearest that is."""
        return centre(self.edges, min(max(day, min(self.edges)), max(self.edges) - 1))


def laid_over(axis: DaysAxis, rows: Sequence[OnSill], hours: Sequence[Hours], today: dt.date) -> LaidOver:
    """The works of these projects over the days of an axis, and the makers' hours."""
    edges = edges_of(axis, today)
    each = [(maker.name, maker.minutes[: max(edges)]) for maker in hours]
    sums = [0.0] * max(edges)
    upon: list[tuple[str, Mapping[int, float]]] = []
    for name, minutes in each:
        sums = [so_far + more / 60 for so_far, more in zip(sums, minutes, strict=False)]
        upon.append((name, dict(enumerate(sums))))
    return LaidOver(edges, upon, rope([row.work for row in rows], edges))


def lines_of(over: LaidOver, across: Callable[[float], float], *, upright: bool = False) -> list[HoursLine]:
    """The hours of each maker over the days; her name in the middle of her band where that is highest, the last time that no
    strand lies there.
    """
    lines, below = [], dict.fromkeys(over.there, 0.0)
    for name, hours in over.upon:
        points = [(along, across(high)) for day, high in hours.items() for along in flat(over.edges, day)]
        day = max(
            hours, key=lambda each: (round(hours[each] - below[each], 6), _is_bare(over, each, below[each]), each)
        )
        along, middle = centre(over.edges, day), across((hours[day] + below[day]) / 2)
        x, y = (middle, along) if upright else (along, middle)
        path = f"M{edge_path(points, upright=upright)}"
        lines.append(HoursLine(path, name if len(over.upon) > 1 else "", round(x, 1), round(y, 1), hours is over.there))
        below = dict(hours)
    return lines


def _is_bare(over: LaidOver, day: int, low: float) -> bool:
    """Whether, as far as a name at a day reaches, nothing lies higher than `low` hours, nor rises to its figure."""
    here = centre(over.edges, day)
    lies = [centre(over.edges, other) for other, high in over.rope.high.items() if high > low]
    return all(abs(place - here) > NAME_PX for place in [*lies, *(strand.rises[0] for strand in over.rope.strands)])


def _ghosts(row: OnSill, scale: float) -> list[tuple[float, bool, float]]:
    """The others of a project, from the back to the front: how far aside in mm, whether it is made, and its size against the
    first one's; those in front are made first.
    """
    others = min(row.count - 1, GHOSTS)
    sizes = row.sizes or [1.0] * row.count
    return [
        (round(GHOST_PX * nth / scale, 1), nth < row.made, round(sizes[nth] / sizes[0], 3))
        for nth in range(others, 0, -1)
    ]


def drawn(
    work: Work, strand: Strand, across: Callable[[float], float], foot: Point, mark: str, *, upright: bool = False
) -> Laid:
    """A strand as path data. `across`: px of so many hours; `foot`: along and across, where it comes to its figure."""

    def closed(band: Band) -> str:
        if not band.points:
            return ""
        upper = edge_path([(along, across(high)) for along, _, high in band.points], upright=upright)
        lower = edge_path([(along, across(low)) for along, low, _ in reversed(band.points)], upright=upright)
        return f"M{upper}L{lower}Z"

    along, high = strand.rises
    rises = [(across(high), along), foot[::-1]] if not upright else [(across(high), along), foot]
    over_at, over_high = max(strand.heap.points, key=lambda point: point[2], default=(0.0, 0.0, 0.0))[::2]
    over = f"{numbers.plain(work.over, 1, mark)} h over" if work.over > A_LITTLE_H else ""
    return Laid(
        closed(strand.spun), closed(strand.loose), closed(strand.dry), closed(strand.heap),
        f"M{edge_path(rises, upright=not upright)}", over, round(over_at, 1), round(across(over_high) - 5, 1),
    )  # fmt: skip


def _weeks(
    axis: DaysAxis, works: Sequence[Work], there: Mapping[int, float], today: dt.date, mark: str
) -> list[WeekMark]:
    """The weeks from this one on that have room for their words: hours planned, and of how many."""
    marks: list[WeekMark] = []
    for monday in axis.mondays:
        days = range((monday - today).days, (monday - today).days + 7)
        hours = sum(work.to_do.get(day, 0.0) + work.heap().get(day, 0.0) for work in works for day in days)
        hours_there = sum(there.get(day, 0.0) for day in days)
        if days[-1] < 0 or not hours or axis.day_px * 7 < WEEK_WORDS_PX:
            continue
        of = f"{numbers.plain(hours_there, 1, mark)} h" if there else ""
        over = bool(there) and hours > hours_there + A_LITTLE_H
        marks.append(WeekMark(round(axis.x(monday), 1), f"{numbers.plain(hours, 1, mark)} h", of, over))
    return marks


def dates_of(axis: DaysAxis, room: float) -> list[tuple[float, dt.date]]:
    """The Mondays whose dates have so many px of room beside each other."""
    found: list[tuple[float, dt.date]] = []
    for monday in axis.mondays:
        x = axis.x(monday)
        if not found or x - found[-1][0] >= room:
            found.append((round(x, 1), monday))
    return found


def _told(axis: DaysAxis) -> str:
    """The stretches for the script: first day, days, where they begin, px of a day."""
    rows = [[each.first.isoformat(), each.days, round(each.x, 2), round(each.day_px, 4)] for each in axis.stretches]
    return json.dumps(rows, separators=(",", ":"))
