"""The supplier's book: what was ordered, when it comes, and what comes of it."""

from __future__ import annotations

import datetime as dt
import hashlib
import json
from collections.abc import Callable
from dataclasses import dataclass, field
from threading import Lock
from typing import Any

LATE_DAYS, FOLLOWS_DAYS, MOST_LINES, MOST_PACKS, MOST_DAYS = 3, 7, 200, 999, 90
USUAL, NONSENSE, SILENT = "usual", "nonsense", "silent"  # how it answers


class Unreadable(ValueError):
    """An order file that cannot be taken, and why."""


class Otherwise(ValueError):
    """An order that was placed before, with other lines."""


@dataclass(frozen=True)
class Line:
    """So many packs of an article; `line` is how the orderer calls it."""

    line: str
    article: str
    pack: float
    count: int


@dataclass
class Placed:
    """An order in the book. What it will do is drawn from its name, so that it does the same whenever it is asked."""

    order: str
    content: str
    lines: list[Line]
    one_dye_lot: bool
    on: dt.date
    due: dt.date
    draw: bytes = field(init=False)

    def __post_init__(self) -> None:
        self.draw = hashlib.sha256(self.order.encode()).digest()

    @property
    def is_late(self) -> bool:
        return self.draw[0] % 4 == 0

    @property
    def is_short(self) -> bool:
        return self.draw[1] % 3 == 0

    @property
    def has_two_lots(self) -> bool:
        return self.draw[2] % 3 == 0 and not self.one_dye_lot

    @property
    def comes(self) -> dt.date:
        return self.due + dt.timedelta(LATE_DAYS if self.is_late else 0)

    def note(self) -> list[dict[str, Any]]:
        """What is in the parcel, line by line and dye lot by dye lot; of a short one the first line lacks a pack."""
        rows = []
        for nth, line in enumerate(self.lines):
            count = line.count - (1 if self.is_short and nth == 0 else 0)
            first = -(-count // 2) if self.has_two_lots else count
            lots = [(f"{self.draw[3] % 90 + 10 + step}", n) for step, n in enumerate((first, count - first)) if n > 0]
            parts = [{"dye_lot": f"S-{number}", "count": n} for number, n in lots]
            rows.append({"line": line.line, "article": line.article, "pack": line.pack, "count": count, "lots": parts})
        return rows


class Book:
    """The orders of all who order here. Safe for threads."""

    def __init__(self, today: Callable[[], dt.date]) -> None:
        self.today = today
        self.mood = USUAL
        self._orders: dict[str, Placed] = {}
        self._lock = Lock()

    def place(self, given: Any) -> dict[str, Any]:
        """Take an order file, once: the same again gets the same answer. Raises `Unreadable`, `Otherwise`."""
        order, lines, days, wish = _read(given)
        content = json.dumps([[line.line, line.article, line.pack, line.count] for line in lines]) + str(wish)
        with self._lock:
            placed = self._orders.get(order)
            if placed is None:
                today = self.today()
                placed = Placed(order, content, lines, wish, today, today + dt.timedelta(days))
                self._orders[order] = placed
        if placed.content != content:
            raise Otherwise(f"{order} was ordered before, with other lines")
        return self.told(placed)

    def find(self, order: str) -> dict[str, Any] | None:
        """What is to be said of an order; None where it is not in the book."""
        placed = self._orders.get(order)
        return self.told(placed) if placed else None

    def told(self, placed: Placed) -> dict[str, Any]:
        """An order as it stands today."""
        today, answer = self.today(), {"order": placed.order, "ordered_on": placed.on.isoformat()}
        if today < placed.comes:
            delayed = placed.is_late and today >= placed.due
            day = placed.comes if delayed else placed.due
            return {**answer, "state": "delayed" if delayed else "confirmed", "arrives_on": day.isoformat()}
        follows = placed.comes + dt.timedelta(FOLLOWS_DAYS) if placed.is_short else None
        return {
            **answer,
            "state": "delivered",
            "arrives_on": placed.comes.isoformat(),
            "lines": placed.note(),
            "follows_on": follows.isoformat() if follows else None,
        }

    def forget(self) -> None:
        """Nothing was ever ordered."""
        with self._lock:
            self._orders.clear()

    def all(self) -> list[Placed]:
        return sorted(self._orders.values(), key=lambda placed: (placed.comes, placed.order))


def _read(given: Any) -> tuple[str, list[Line], int, bool]:
    """An order file's number, lines, days and wish. Raises `Unreadable`."""
    try:
        order, days, wish = given["order"], given.get("wanted_in_days", 7), given.get("one_dye_lot", False)
        lines = [
            Line(str(row.get("line", ""))[:64], str(row["article"])[:120], float(row["pack"]), row["count"])
            for row in given["lines"]
        ]
    except (TypeError, KeyError, ValueError, AttributeError):
        raise Unreadable("an order has a number and lines of article, pack and count") from None
    if not (isinstance(order, str) and 1 <= len(order) <= 64 and order.isprintable()):
        raise Unreadable("an order's number has 1 to 64 letters")
    if not (lines and len(lines) <= MOST_LINES and all(_is_count(line.count) and line.pack > 0 for line in lines)):
        raise Unreadable(f"an order has 1 to {MOST_LINES} lines, each of 1 to {MOST_PACKS} packs of more than nothing")
    if not (type(days) is int and 0 <= days <= MOST_DAYS and type(wish) is bool):
        raise Unreadable(f"it is wanted in 0 to {MOST_DAYS} days, of one dye lot or not")
    return order, lines, days, wish


def _is_count(count: Any) -> bool:
    return type(count) is int and 1 <= count <= MOST_PACKS
