"""What another maker has changed of a figure since a page of it was drawn: the second one is asked, nobody is overwritten."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator
from typing import TYPE_CHECKING, Any
from uuid import UUID

from wembit.core.craft.materials import FIRMNESS_WORDS
from wembit.web.errors import Refusal
from wembit.web.figures.models import Part
from wembit.web.numbers import length
from wembit.web.studio.deeds import others_since

from .snapshots import as_kept

if TYPE_CHECKING:
    from wembit.web.studio.models import Member

FIELDS = {"bead_mm": "bead"}  # what a form calls by another name
Place = tuple[
    str, str, str, str
]  # table, what is changed, column, and of a shape, a seat or a rule which of its values


def ask_first(member: Member, figure_id: UUID, drawn_at: dt.datetime, rows: Iterable[list[Any]]) -> None:
    """Raises `Refusal`, naming who, where the member changes what another has changed to something else since."""
    mine = dict(_places(rows))
    if not mine:
        return
    for deed in others_since(member, figure_id, drawn_at):
        for place, value in _places(deed.rows or []):
            if place in mine and mine[place] != value:
                raise Refusal(_words(deed.member, place, value), FIELDS.get(place[3], place[3]) or place[2])


def _places(rows: Iterable[list[Any]]) -> Iterator[tuple[Place, Any]]:
    """Each value of rows that were there and still are which has changed, with what it is now."""
    for table, key, before, after in rows:
        if before is None or after is None:
            continue
        before, after = as_kept(before), as_kept(after)
        thing = _thing(table, key, before)
        for column in after:
            if isinstance(after[column], dict) and isinstance(before[column], dict):
                for part in {*before[column], *after[column]}:
                    if before[column].get(part) != after[column].get(part):
                        yield (table, thing, column, part), after[column].get(part)
            elif before[column] != after[column]:
                yield (table, thing, column, ""), after[column]


def _thing(table: str, key: str, row: dict[str, Any]) -> str:
    """What the row is of, which is the same in the version that a later change has made of a frozen one."""
    if table == "part":
        return str(row["key"])
    if table == "layer":
        part = Part.objects.filter(pk=row["part_id"]).values_list("key", flat=True).first()
        return f"{part}, {row['position']}"
    return "" if table == "version" else key


def _words(member: Member, place: Place, value: Any) -> str:
    _, _, column, part = place
    to = ""
    if part.endswith("_mm") and isinstance(value, int | float):
        to = " ".join(length(value, member.studio))
    elif "firmness" in (column, part):
        to = FIRMNESS_WORDS.get(value, "")
    elif column in ("name", "count"):
        to = str(value)
    return (
        f"{member} has changed this{to and f' to {to}'} since the page was drawn. Send it once more, and yours stands."
    )
