"""The stash as a table: what goes out, and what becomes of each row that comes in."""

from __future__ import annotations

import hashlib
import re
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core import units
from wembit.core.craft.materials import FORMS, NOTIONS, SHORT_BREEDS
from wembit.core.tables import Table, number
from wembit.web import clock
from wembit.web.decimals import to_cent, to_step
from wembit.web.stash.models import FIBRE, GRAMS, NOTION, PIECES, Item, Lot, Movement, unit_of
from wembit.web.stash.queries import UNKNOWN, breed_choices, breed_fields

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

COLUMNS = (
    "bag",
    "kind",
    "name",
    "breed",
    "form",
    "notion",
    "size_mm",
    "amount",
    "unit",
    "weighed",
    "colour",
    "dye_lot",
    "drawer",
)
LEDGER = (
    "entry",
    "happened_at",
    "recorded_at",
    "verb",
    "by",
    "bag",
    "name",
    "kind",
    "amount",
    "unit",
    "note",
    "takes_back",
)
OTHER_NAMES = {
    "grams": "amount", "weight": "amount", "quantity": "amount", "srgb": "colour", "color": "colour", "colour_name": "name",
    "lot": "dye_lot", "dyelot": "dye_lot", "place": "drawer", "size": "size_mm", "id": "bag", "fibre": "breed",
}  # fmt: skip
COLOUR = re.compile("#?[0-9a-fA-F]{6}")
NEW, CHANGED, SAME, BEFORE, REFUSED = "new bag", "changed", "as it is", "came in before", "refused"
NEW_LINE = "new line"  # of the ledger
FATES = (NEW, NEW_LINE, CHANGED, SAME, BEFORE, REFUSED)


class NoStash(ValueError):
    """The table cannot be a stash; the message says what is missing."""


@dataclass
class TableRow:
    """A row with what will become of it: `words` say why, or what changes; `given` is what it says, ready to be kept."""

    number: int
    fate: str
    words: str = ""
    given: dict = field(default_factory=dict)
    lot: Lot | None = None
    mark: str = ""


def stash_rows(studio: Studio) -> Iterator[tuple]:
    """The bags on the shelf, one a row."""
    lots = Lot.objects.of(studio).on_shelf().select_related("item__own_breed", "drawer").order_by("made_at", "pk")
    for lot in lots.iterator(chunk_size=2000):
        item = lot.item
        breed = item.own_breed.name if item.own_breed else item.breed
        yield (
            lot.pk, item.kind, item.name, breed, item.form, item.notion, _plain(item.size_mm), _plain(lot.on_hand), item.unit,
            "yes" if lot.weighed else "no", lot.srgb, lot.dye_lot, lot.drawer.name if lot.drawer else "",
        )  # fmt: skip


def ledger_rows(studio: Studio) -> Iterator[tuple]:
    """The whole ledger, one movement a row, the oldest first."""
    zone = clock.zone(studio)
    moved = (
        Movement.objects.of(studio).select_related("entry__by__user", "lot__item").order_by("entry__recorded_at", "pk")
    )
    for each in moved.iterator(chunk_size=2000):
        entry, item = each.entry, each.lot.item
        yield (
            entry.pk, entry.happened_at.astimezone(zone).isoformat(), entry.recorded_at.astimezone(zone).isoformat(),
            entry.verb, str(entry.by), each.lot_id, item.name, each.kind, _plain(each.amount), item.unit, entry.note,
            entry.reverses_id,
        )  # fmt: skip


def _plain(value: Decimal | None) -> str:
    return "" if value is None else f"{value.normalize():f}"


def heads(table: Table, columns: Sequence[str]) -> dict[str, int]:
    """Where each of these columns stands, by its own name or a usual other one."""
    found: dict[str, int] = {}
    for place, head in enumerate(table.head):
        name = re.sub(r"[\s-]+", "_", head.strip().lower())
        name = name if name in columns else OTHER_NAMES.get(name, name)
        if name in columns and name not in found:
            found[name] = place
    return found


def columns_of(table: Table) -> dict[str, int]:
    """Where each column of a stash stands. Raises `NoStash`."""
    columns = heads(table, COLUMNS)
    if "form" not in columns and "notion" not in columns:
        wanted = ", ".join(COLUMNS)
        raise NoStash(f"No column says what form the wool has. The first row names the columns, of these: {wanted}.")
    return columns


def fates(studio: Studio, table: Table, start: int = 0, most: int | None = None) -> list[TableRow]:
    """What becomes of the rows from `start` on, at most so many of them."""
    places = columns_of(table)
    marks = _marks(table, places)
    end = len(table.rows) if most is None else min(len(table.rows), start + most)
    said = [{name: table.cell(n, at).strip() for name, at in places.items()} for n in range(start, end)]
    known = _known(studio, (each.get("bag", "") for each in said))
    came = set(
        Lot.objects.of(studio).filter(came_as__in=marks[start:end]).values_list("came_as", flat=True) if said else ()
    )
    breeds = dict(breed_choices(studio))
    return [_fate(n + 2, each, marks[n], known, came, breeds) for n, each in enumerate(said, start)]


def _marks(table: Table, places: dict[str, int]) -> list[str]:
    """What tells each row from all others of all files: what it says, and how many before it say the same."""
    seen: Counter = Counter()
    found = []
    for n in range(len(table.rows)):
        said = "\x1f".join(table.cell(n, at).strip() for at in places.values())
        seen[said] += 1
        found.append(hashlib.sha256(f"{said}\x1f{seen[said]}".encode()).hexdigest()[:40])
    return found


def _known(studio: Studio, texts: Iterable[str]) -> dict[str, Lot]:
    ids = []
    for text in texts:
        try:
            ids.append(UUID(text))
        except ValueError:
            continue
    lots = Lot.objects.of(studio).filter(pk__in=ids, waste=False).select_related("item__own_breed", "drawer")
    return {str(lot.pk): lot for lot in lots}


def _fate(
    number_: int, said: dict[str, str], mark: str, known: dict[str, Lot], came: set[str], breeds: dict[str, str]
) -> TableRow:
    try:
        given = _read(said, breeds)
    except ValueError as fault:
        return TableRow(number_, REFUSED, str(fault))
    lot = known.get(said.get("bag", "").lower())
    if lot is not None:
        try:
            words = _changes(lot, given)
        except ValueError as fault:
            return TableRow(number_, REFUSED, str(fault))
        return TableRow(number_, CHANGED if words else SAME, ", ".join(words), given, lot)
    if mark in came:
        return TableRow(number_, BEFORE, "", given)
    return TableRow(number_, NEW, "", given, mark=mark)


def _read(said: dict[str, str], breeds: dict[str, str]) -> dict:
    """What a row says, in the fields of items and lots; `breeds` as `breed_choices` gives them. Raises ValueError with words
    for a person.
    """
    kind = said.get("kind", "").lower() or (NOTION if said.get("notion") and not said.get("form") else FIBRE)
    if kind not in (FIBRE, NOTION):
        raise ValueError(f"kind is {FIBRE} or {NOTION}, not “{kind[:20]}”")
    found: dict = {"kind": kind, "name": said.get("name", "")[:80]}
    found |= {column: said[column][:40] if column in said else None for column in ("dye_lot", "drawer")}
    if kind == FIBRE:
        found["form"] = _one_of("form", said.get("form", ""), {key: each.name for key, each in FORMS.items()})
        found |= breed_fields(_breed(said["breed"], breeds) if said.get("breed") else UNKNOWN)
        found["unit"] = GRAMS
    else:
        found["notion"] = _one_of("notion", said.get("notion", ""), NOTIONS)
        found["unit"] = unit_of(found["notion"])
        size = number(said.get("size_mm", ""))
        if size is not None and not 0 < size <= 1000:
            raise ValueError("size_mm runs up to 1000")
        found["size_mm"] = None if size is None else to_cent(size)
    if (unit := said.get("unit", "")) and unit != found["unit"]:
        raise ValueError(f"{found.get('notion') or 'wool'} is kept in {found['unit']}, not in “{unit[:10]}”")
    amount = _amount(said.get("amount", ""), found["unit"])
    if amount is not None and not 0 <= amount < 1_000_000:
        raise ValueError("amount runs from 0 to a million")
    found["amount"] = None if amount is None or said.get("weighed", "").lower() == "no" else to_step(amount)
    if (colour := said.get("colour", "")) and not COLOUR.fullmatch(colour):
        raise ValueError(f"colour is written as #6f7d43, not as “{colour[:20]}”")
    found["srgb"] = f"#{colour.lstrip('#').lower()}" if colour else ""
    if any("\0" in value for value in found.values() if isinstance(value, str)):
        raise ValueError("a character that cannot be kept stands in it")
    return found


def _amount(text: str, unit: str) -> float | None:
    """An amount in the item's unit, as forms understand it: a bare number, or one with its own unit. Raises ValueError."""
    if not text.strip():
        return None
    with suppress(ValueError):
        return number(text)
    read = {GRAMS: units.weight, PIECES: units.pieces}.get(unit, units.length)
    return read(text).value


def _breed(text: str, breeds: dict[str, str]) -> str:
    """The key of a breed by its name or a usual short one."""
    return _one_of("breed", SHORT_BREEDS.get(text.strip().lower(), text), breeds)


def _one_of(column: str, text: str, choices: dict[str, str]) -> str:
    for key, name in choices.items():
        if text.strip().lower() in (key, name.lower()):
            return key
    raise ValueError(
        f"{column} “{text[:20]}” is none of {', '.join(choices.values())}" if text else f"{column} is missing"
    )


def tells_breed(item: Item, given: dict) -> bool:
    """Whether a row names a breed, and another one than the item's."""
    if item.kind != FIBRE or (given["breed"] == UNKNOWN and not given.get("own_breed_id")):
        return False
    return (given["breed"], given.get("own_breed_id")) != (item.breed, item.own_breed_id)


def _changes(lot: Lot, given: dict) -> list[str]:
    """What a row says of a bag that the book does not, in words. Raises ValueError where it is another thing altogether."""
    item = lot.item
    for name in ("kind", "form", "notion"):
        if given.get(name) and getattr(item, name) != given[name]:
            raise ValueError(f"the bag of that number is {item.name}, {item.what}")
    words = []
    if given["name"].strip() and " ".join(given["name"].split()).lower() != item.name.lower():
        words.append(f"called {given['name']}")
    if tells_breed(item, given):
        words.append("another breed")
    if given["amount"] is not None and (given["amount"] != lot.on_hand or not lot.weighed):
        words.append(f"{_plain(given['amount'])} instead of {_plain(lot.on_hand)} {item.unit}")
    if given["drawer"] is not None and given["drawer"] != (lot.drawer.name if lot.drawer else ""):
        words.append(f"drawer {given['drawer'] or 'none'}")
    if given["dye_lot"] is not None and given["dye_lot"] != lot.dye_lot:
        words.append(f"dye lot {given['dye_lot'] or 'none'}")
    if given["srgb"] and given["srgb"] != lot.srgb:
        words.append(f"colour {given['srgb']}")
    return words
