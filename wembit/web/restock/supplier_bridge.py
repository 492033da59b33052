"""Suppliers that take order files, behind one interface: who answers as docs/formats.md says can take the stand-in's place."""

from __future__ import annotations

import datetime as dt
import json
import time
import urllib.error
import urllib.request
from dataclasses import dataclass
from typing import Any
from urllib.parse import quote

from django.conf import settings

from wembit.web.errors import Refusal

CONFIRMED, DELAYED, DELIVERED = "confirmed", "delayed", "delivered"
PATIENCE_S, TRIES, PAUSE_S = 2.0, 2, 0.2  # of one try; how often; between two
LARGEST_ANSWER, MOST_PACKS = 500_000, 10_000


@dataclass(frozen=True)
class Came:
    """So many packs of a line that are in the parcel, of a dye lot."""

    line: str
    dye_lot: str
    count: int


@dataclass(frozen=True)
class Answer:
    """What a supplier says of an order: when it comes or came, what is in it once it is there, whether the rest follows."""

    state: str
    arrives_on: dt.date
    came: tuple[Came, ...] = ()
    follows_on: dt.date | None = None

    def noted(self) -> dict[str, Any]:
        """As an order keeps it."""
        came = [[each.line, each.dye_lot, each.count] for each in self.came]
        follows = self.follows_on.isoformat() if self.follows_on else None
        return {"state": self.state, "arrives_on": self.arrives_on.isoformat(), "came": came, "follows_on": follows}


def is_there() -> bool:
    """Whether there is anybody who takes order files."""
    return bool(settings.WEMBIT_SUPPLIER)


def place(document: dict[str, Any]) -> Answer:
    """Send an order file; twice it is ordered once. Raises `Refusal` where nobody answers, or says what nobody understands."""
    return _asked("POST", "/orders", document["order"], json.dumps(document).encode())


def ask(number: str) -> Answer:
    """How an order stands. Raises `Refusal` likewise."""
    return _asked("GET", f"/orders/{quote(number, safe='')}", number)


def _asked(method: str, path: str, number: str, body: bytes | None = None) -> Answer:
    request = urllib.request.Request(f"{settings.WEMBIT_SUPPLIER}{path}", body, method=method)
    request.add_header("Content-Type", "application/json")
    for nth in range(TRIES):
        try:
            with urllib.request.urlopen(request, timeout=PATIENCE_S) as answer:
                return understood(answer.read(LARGEST_ANSWER), number)
        except urllib.error.HTTPError as fault:
            if fault.code < 500:
                words = fault.read(400).decode("utf-8", "replace")
                raise Refusal(f"The supplier does not take it: {words}.") from None
        except (OSError, ValueError):  # nobody there, or no answer in time
            pass
        if nth + 1 < TRIES:
            time.sleep(PAUSE_S)
    raise Refusal("The supplier does not answer. Nothing was changed; try again later, or order it another way.")


def understood(text: bytes, number: str) -> Answer:
    """An answer as a supplier sends it. Raises `Refusal` for anything else."""
    try:
        row: Any = json.loads(text)
        if row["order"] != number or row["state"] not in (CONFIRMED, DELAYED, DELIVERED):
            raise ValueError
        came = tuple(
            Came(str(line["line"])[:64], str(lot["dye_lot"])[:40], lot["count"])
            for line in row.get("lines", [])
            for lot in line["lots"]
        )
        if any(type(each.count) is not int or not 0 < each.count <= MOST_PACKS for each in came):
            raise ValueError
        follows = row.get("follows_on")
        return Answer(row["state"], _day(row["arrives_on"]), came, _day(follows) if follows else None)
    except (ValueError, TypeError, KeyError, AttributeError, RecursionError):
        raise Refusal(
            "The supplier said something odd. Nothing was changed; try again later, or ask by hand."
        ) from None


def _day(text: Any) -> dt.date:
    day = dt.date.fromisoformat(text)
    if not 2000 <= day.year < 2200:
        raise ValueError
    return day
