"""How planned met taken, drawn: each finished part as a dot between half and double of what was planned."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from wembit.core.craft.materials import FIRMNESS_WORDS
from wembit.core.grams.estimate import Z90
from wembit.core.learning.calibration import Calibration
from wembit.core.work.step import minutes_range
from wembit.web.figures.size_words import ROLES
from wembit.web.figures.to_core.hands import ALL, MINUTES

if TYPE_CHECKING:
    from wembit.web.studio.models import Member, Studio

    from .records import Record

WIDE, HIGH, EDGE = 520.0, 96.0, 8.0  # px of a chart; what its ends stand off
MOST_DOTS = 40  # of a chart: the newest
Mark = tuple[float, bool, "Record | None"]  # taken against planned, whether it lay in its range, what it was


def along(ratio: float, length: float) -> float:
    """Where a ratio lies on a length: half at 0, one in the middle, double at the end; what is beyond lies at the end."""
    share = (math.log2(ratio) + 1) / 2 if ratio > 0 else 0.0
    return round(EDGE + min(1.0, max(0.0, share)) * (length - 2 * EDGE), 1)


@dataclass(frozen=True)
class Dot:
    """A finished part: where it lies, whether it lay in its range, and what it was."""

    x: float
    y: float
    held: bool
    record: Record | None = None


@dataclass(frozen=True)
class Row:
    """What one firmness or role has taught: the hand, the ends of its range as ratios and as y, the dots, how many held, and
    each maker's own hand.
    """

    words: str
    known: Calibration
    low: float
    high: float
    dots: list[Dot]
    held: int
    of: int
    makers: list[tuple[str, Calibration]]

    @property
    def more(self) -> float:
        """Per cent that it takes more than the rule; below zero less."""
        return round(100 * (self.known.bias - 1))

    @property
    def less(self) -> float:
        """Per cent that it takes less."""
        return -self.more

    @property
    def top(self) -> float:
        return round(HIGH - along(self.high, HIGH), 1)

    @property
    def tall(self) -> float:
        return round(along(self.high, HIGH) - along(self.low, HIGH), 1)


def learnt_rows(
    studio: Studio, found: Sequence[Record], makers: Iterable[Member], minutes: Sequence[float] = ()
) -> list[Row]:
    """A row for each firmness and role that something was weighed of, that with most records first; then one for what parts
    took in minutes against the rule.
    """
    by_key: dict[str, list[Record]] = {}
    for record in found:
        by_key.setdefault(record.key, []).append(record)
    names = {str(member.pk): str(member) for member in makers}
    rows = []
    for key, records in sorted(by_key.items(), key=lambda each: -len(each[1])):
        marks = [(each.ratio, each.held, each) for each in records]
        rows.append(_row(studio, names, key, _words(key), marks))
    if minutes:
        low, high = minutes_range(1.0)
        rows.append(_row(studio, names, MINUTES, MINUTES, [(ratio, low <= ratio <= high, None) for ratio in minutes]))
    return rows


def _row(studio: Studio, names: Mapping[str, str], key: str, words: str, marks: Sequence[Mark]) -> Row:
    hands = studio.hands
    known = Calibration(*hands.get(ALL, {}).get(key, ()))
    own = [(names[who], Calibration(*by[key])) for who, by in hands.items() if who in names and key in by]
    low, high = (known.bias * math.exp(z * known.sigma) for z in (-Z90, Z90))
    held = sum(was_held for _, was_held, _ in marks)
    own = sorted(own) if len(own) > 1 else []
    return Row(words, known, low, high, _dots(marks[-MOST_DOTS:]), held, len(marks), own)


def _words(key: str) -> str:
    return FIRMNESS_WORDS.get(key) or ROLES.get(key, key)


def _dots(marks: Sequence[Mark]) -> list[Dot]:
    step = (WIDE - 2 * EDGE) / max(MOST_DOTS - 1, 1)
    return [
        Dot(round(EDGE + n * step, 1), round(HIGH - along(ratio, HIGH), 1), held, record)
        for n, (ratio, held, record) in enumerate(marks)
    ]


@dataclass(frozen=True)
class PartRow:
    """A layer of a part of one figure: what it was planned with last and the ends of that range, what each making took, on a
    line from half to double of the planned.
    """

    part: str
    slot: str
    item: str
    planned_g: float
    low_x: float
    wide: float
    dots: list[Dot]


def part_rows(found: Sequence[Record], wools: dict) -> list[PartRow]:
    """A row for each layer of each part in the order of the figure; `wools`: the name of each item."""
    groups: dict[tuple[str, str], list[Record]] = {}
    for record in found:
        groups.setdefault((record.part_key, record.slot), []).append(record)
    rows = []
    for records in groups.values():
        last = records[-1]
        middle = last.grams.p50
        low, high = (along(end / middle, WIDE) for end in (last.grams.p10, last.grams.p90))
        dots = [Dot(along(float(each.taken) / middle, WIDE), 0.0, each.held, each) for each in records]
        rows.append(PartRow(last.part, last.slot, wools[last.item], middle, low, round(high - low, 1), dots))
    return rows
