"""Every studio of a database many times over, under other ids: for what has to hold, and stay quick, in a full house."""

from __future__ import annotations

from typing import Any

from django.apps import apps
from django.db import models

APPS = ("studio", "stash", "figures", "plan", "bench", "restock")
IDS = ("UUIDField", "ForeignKey", "OneToOneField")


def multiply(cursor: Any, times: int) -> None:
    """`times` copies of all that every studio has. An id is made of the one it stands for and the number of the copy, so that
    each copy's rows name each other; of names that are there only once the number is the end. Within a transaction.
    """
    cursor.execute("SET CONSTRAINTS ALL DEFERRED")
    for model in (model for app in APPS for model in apps.get_app_config(app).get_models()):
        columns = model._meta.concrete_fields
        names = ", ".join(f'"{column.column}"' for column in columns)
        values = ", ".join(_copied(column) for column in columns)
        cursor.execute(
            f"INSERT INTO {model._meta.db_table} ({names}) SELECT {values} "
            f"FROM {model._meta.db_table} t, generate_series(1, {int(times)}) n"
        )


def _copied(column: models.Field) -> str:
    """What a copy has in that column, as SQL."""
    if column.get_internal_type() in IDS:
        return f'md5(t."{column.column}"::text || n)::uuid'
    if column.unique:
        return f"t.\"{column.column}\" || '-' || n"
    return f't."{column.column}"'
