"""The rows of a version, before and after a change, and the way from one to the other."""

from __future__ import annotations

import json
from typing import TYPE_CHECKING, Any

from django.core.serializers.json import DjangoJSONEncoder
from django.db import models
from django.db.models import ProtectedError

from wembit.web.errors import Refusal
from wembit.web.figures.models import Choice, Colourway, Layer, Part, Slot, Version

if TYPE_CHECKING:
    from uuid import UUID

Rows = dict[tuple[str, str], dict[str, Any]]
OF_VERSION = ("id", "school", "notions", "faces", "order")  # what else it has no change of a figure changes
TABLES: dict[str, type[models.Model]] = {  # each after what it points to
    "version": Version, "slot": Slot, "colourway": Colourway, "part": Part, "layer": Layer, "choice": Choice,
}  # fmt: skip


def rows_of(version: Version) -> Rows:
    """Every row that a change of the version may change, by table and id. Six queries."""
    mine = {
        "version": Version.objects.filter(pk=version.pk).values(*OF_VERSION),
        "slot": Slot.objects.filter(version=version).values(),
        "colourway": Colourway.objects.filter(version=version).values(),
        "part": Part.objects.filter(version=version).values(),
        "layer": Layer.objects.filter(part__version=version).values(),
        "choice": Choice.objects.filter(colourway__version=version).values(),
    }
    return {(table, str(row["id"])): row for table, rows in mine.items() for row in rows}


def as_kept(row: dict[str, Any] | None) -> Any:
    """A row as the journal keeps it: what JSON makes of it."""
    return json.loads(json.dumps(row, cls=DjangoJSONEncoder))


def changed(before: Rows, after: Rows) -> list[list[Any]]:
    """The rows that differ: table, id, the row before and the row after; None where there was or is none."""
    keys = sorted(before.keys() | after.keys())
    return [[*key, before.get(key), after.get(key)] for key in keys if before.get(key) != after.get(key)]


def put(version_id: UUID, rows: list[list[Any]], *, back: bool) -> None:
    """Put the changed rows of a version back to what they were, or to what they became. The version must be locked.

    Raises `Refusal` where something has changed since, or stands on a row that would have to go.
    """
    now = rows_of(Version(pk=version_id))
    old, new = (3, 2) if back else (2, 3)
    if any(as_kept(now.get((row[0], row[1]))) != row[old] for row in rows):
        raise Refusal("The figure was changed there since. Take back the later change first.")
    order = list(TABLES)
    try:
        for table, key, *_ in sorted((row for row in rows if row[new] is None), key=lambda row: -order.index(row[0])):
            TABLES[table]._default_manager.filter(pk=key).delete()
    except ProtectedError:
        raise Refusal("Something is planned or made with it by now. Give that up first.") from None
    for row in sorted((row for row in rows if row[new] is not None), key=lambda row: order.index(row[0])):
        model, fields = TABLES[row[0]], {name: value for name, value in row[new].items() if name != "id"}
        if row[old] is None:
            model(**row[new]).save(force_insert=True)
        else:
            model._default_manager.filter(pk=row[1]).update(**fields)
