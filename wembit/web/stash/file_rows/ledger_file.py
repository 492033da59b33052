"""Lines of the ledger as a table that comes in: what was taken, put back, received, sold or thrown away and written down
elsewhere.
"""

from __future__ import annotations

import datetime as dt
import hashlib
from collections import Counter
from typing import TYPE_CHECKING
from uuid import UUID

from django.utils.dateparse import parse_datetime

from wembit.core.tables import Table, number
from wembit.web import clock
from wembit.web.decimals import to_step
from wembit.web.stash.models import DISCARDED, PULLED, RECEIVED, RETURNED, SOLD, Entry, Lot

from .stash_file import BEFORE, NEW_LINE, REFUSED, SAME, TableRow, heads

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

COLUMNS = ("entry", "happened_at", "bag", "name", "dye_lot", "kind", "amount", "note")
SIGNS = {PULLED: -1, DISCARDED: -1, SOLD: -1, RETURNED: 1, RECEIVED: 1}


def is_ledger(table: Table) -> bool:
    """Whether the table's heading is that of a ledger: kinds and amounts of bags, and no forms."""
    columns = heads(table, COLUMNS)
    return (
        {"kind", "amount"} <= set(columns)
        and bool({"bag", "name"} & set(columns))
        and not heads(table, ("form", "notion"))
    )


def ledger_fates(studio: Studio, table: Table, start: int = 0, most: int | None = None) -> list[TableRow]:
    """What becomes of the rows from `start` on, at most so many of them."""
    places = heads(table, COLUMNS)
    end = len(table.rows) if most is None else min(len(table.rows), start + most)
    said = [{name: table.cell(n, at).strip() for name, at in places.items()} for n in range(end)]
    marks = _marks(said)
    entries = {
        str(pk) for pk in Entry.objects.of(studio).filter(pk__in=_ids(said[start:])).values_list("pk", flat=True)
    }
    came = set(Entry.objects.of(studio).filter(client_key__in=marks[start:]).values_list("client_key", flat=True))
    bags = _bags(studio)
    return [_fate(studio, n + 2, said[n], marks[n], entries, came, bags) for n in range(start, end)]


def _marks(said: list[dict[str, str]]) -> list[str]:
    """What tells each row from all others of all files: what it says, and how many before it say the same."""
    seen: Counter = Counter()
    found = []
    for row in said:
        text = "\x1f".join(row.values())
        seen[text] += 1
        found.append("line-" + hashlib.sha256(f"{text}\x1f{seen[text]}".encode()).hexdigest()[:40])
    return found


def _ids(said: list[dict[str, str]]) -> list[UUID]:
    found = []
    for row in said:
        try:
            found.append(UUID(row.get("entry", "")))
        except ValueError:
            continue
    return found


def _bags(studio: Studio) -> dict[str, list[Lot]]:
    """The studio's bags by their number, and by name and dye lot."""
    found: dict[str, list[Lot]] = {}
    for lot in Lot.objects.of(studio).filter(waste=False).select_related("item"):
        for key in (str(lot.pk), _named(lot.item.name, lot.dye_lot), _named(lot.item.name, "")):
            if lot not in found.setdefault(key, []):
                found[key].append(lot)
    return found


def _named(name: str, dye_lot: str) -> str:
    return f"{name.lower()}\x1f{dye_lot.lower()}"


def _fate(
    studio: Studio, number_: int, said: dict[str, str], mark: str, entries: set, came: set, bags: dict
) -> TableRow:
    if said.get("entry") in entries:
        return TableRow(number_, SAME)
    if mark in came:
        return TableRow(number_, BEFORE)
    try:
        lot = _bag(said, bags)
        kind = said.get("kind", "").lower()
        if kind not in SIGNS:
            raise ValueError(f"kind is one of {', '.join(SIGNS)}, not “{kind[:20]}”")
        amount = number(said.get("amount", ""))
        if not amount or abs(amount) >= 1_000_000:
            raise ValueError("amount has to be more than nothing, and less than a million")
        given = {
            "kind": kind,
            "amount": SIGNS[kind] * abs(to_step(amount)),
            "happened_at": _moment(studio, said.get("happened_at", "")),
            "note": said.get("note", "").replace("\0", "")[:200],
        }
    except ValueError as fault:
        return TableRow(number_, REFUSED, str(fault))
    return TableRow(number_, NEW_LINE, lot.item.name, given, lot, mark)


def _bag(said: dict[str, str], bags: dict[str, list[Lot]]) -> Lot:
    key = said.get("bag", "").lower()
    bag = bags.get(key) if key else bags.get(_named(said.get("name", ""), said.get("dye_lot", "")))
    if not bag:
        raise ValueError("no bag here has that number, or that name and dye lot")
    if len(bag) > 1:
        raise ValueError(f"{len(bag)} bags have that name: give the dye lot, or the number of the bag")
    return bag[0]


def _moment(studio: Studio, text: str) -> dt.datetime:
    """When it happened; noon of a bare day, now for nothing. Raises ValueError."""
    if not text:
        return clock.now()
    try:
        moment = parse_datetime(text) if "T" in text or " " in text else clock.at(studio, dt.date.fromisoformat(text))
    except ValueError:
        moment = None
    if moment is None:
        raise ValueError(f"happened_at is written as 2026-11-25, not as “{text[:20]}”")
    if moment.tzinfo is None:
        moment = moment.replace(tzinfo=clock.zone(studio))
    if moment < clock.EARLIEST:
        raise ValueError("happened_at is before 1900")
    if moment > clock.now():
        raise ValueError("happened_at lies ahead")
    return moment
