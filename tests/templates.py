"""Databases that the tests copy: one migrated, one with the demo of today; `./test` makes them once, beforehand."""

from __future__ import annotations

import os
from typing import TYPE_CHECKING

from tests.serving import manage, new_database

if TYPE_CHECKING:
    import psycopg

MIGRATED, DEMO = "tests_migrated", "tests_demo"
FILLED = ("django_migrations", "django_content_type", "auth_permission")  # by the migrations themselves


def are_made() -> bool:
    """Whether `./test` has made them; a single test does without."""
    return os.environ.get("WEMBIT_TEMPLATES") == "made"


def make() -> None:
    manage(new_database(MIGRATED), "migrate", "--verbosity", "0")
    manage(new_database(DEMO, like=MIGRATED), "demo")


def copy_rows(source: psycopg.Connection, target: psycopg.Connection) -> None:
    """All rows of a database into an empty one of the same tables, within the target's transaction."""
    tables = source.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public'").fetchall()
    for (table,) in tables:
        if table in FILLED:
            continue
        with source.cursor().copy(f'COPY "{table}" TO STDOUT') as rows:
            data = b"".join(bytes(row) for row in rows)
        with target.cursor().copy(f'COPY "{table}" FROM STDIN') as into:
            into.write(data)


if __name__ == "__main__":
    make()
