"""How the shelf grows: pages of the stash with ever more lots and movements in one studio."""

from __future__ import annotations

import uuid

import psycopg

from tests.serving import Visitor, served

from .big import GROW_SHELF, tell_colours
from .pages import timed

STEPS = [(60, 1_500), (250, 6_250), (1_000, 25_000), (2_000, 50_000)]


def sizes(connection) -> tuple[int, int]:
    """How many lots and how many lines of the ledger there are."""
    return tuple(
        connection.execute(f"SELECT count(*) FROM stash_{table}").fetchone()[0] for table in ("lot", "movement")
    )


def rows(database: str) -> list[tuple[str, str]]:
    """Rows by size; the lots' books are the sums of their lines, as everywhere."""
    found = []
    with served(database) as address, psycopg.connect(database, autocommit=True) as connection:
        visitor = Visitor(address)

        def press():
            connection.execute("UPDATE studio_studio SET stamp = stamp + 1 WHERE slug = 'saltgrass'")

        for lots, movements in STEPS:
            have, moved = sizes(connection)
            more = max(lots - have + 1, 0)
            if more:
                each = max(1, (movements - moved) // more)
                mark = uuid.uuid4().hex[:6]
                connection.execute(GROW_SHELF, {"fibres": more, "lots": more, "each": each, "mark": mark})
                tell_colours(connection.cursor())
                connection.execute("ANALYZE")
            have, moved = sizes(connection)
            figures = []
            for path in ("stash/", "stash/?words=wool", "stash/?by=hue", "colour/?colour=6f7d43"):
                middle, slow, _ = timed(visitor, f"/s/saltgrass/{path}", press, rounds=20)
                figures.append(f"{path} {middle:6.1f} / {slow:6.1f} ms")
            found.append((f"shelf of {have} lots, {moved} lines", "  ".join(figures)))
    return found
