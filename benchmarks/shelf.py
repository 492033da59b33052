"""How the shelf grows: pages of the stash with ever more lots and movements in one studio."""

from __future__ import annotations

import random
import uuid
from pathlib import Path

import psycopg

from tests.serving import Visitor, served
from wembit.web.stash.swatch import LOOK, swatches

from .pages import timed

STEPS = [(60, 1_500), (250, 6_250), (1_000, 25_000), (2_000, 50_000)]

GROW = (Path(__file__).parent / "grow_shelf.sql").read_text()


def sizes(connection) -> tuple[int, int]:
    """How many lots and how many lines of the ledger there are."""
    return tuple(
        connection.execute(f"SELECT count(*) FROM stash_{table}").fetchone()[0] for table in ("lot", "movement")
    )


def tell_colours(connection) -> None:
    """A colour with its curve for every bag that has none."""
    chance = random.Random(3)
    bags = [row[0] for row in connection.execute("SELECT id FROM stash_lot WHERE curve IS NULL AND NOT waste")]
    looks = swatches([f"#{chance.randrange(0x1000000):06x}" for _ in bags])
    names = ", ".join(f"{name} = %({name})s" for name in LOOK)
    for bag, look in zip(bags, looks, strict=True):
        connection.execute(f"UPDATE stash_lot SET {names} WHERE id = %(bag)s", {**look, "bag": bag})


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
                connection.execute(GROW, {"lots": more, "each": each, "mark": uuid.uuid4().hex[:6]})
                tell_colours(connection)
                connection.execute("ANALYZE")
            have, moved = sizes(connection)
            figures = []
            for path in ("stash/", "stash/?words=wool", "stash/?by=hue", "colour/?colour=6f7d43"):
                middle, slow, _ = timed(visitor, f"/s/saltgrass/{path}", press, rounds=20)
                figures.append(f"{path} {middle:6.1f} / {slow:6.1f} ms")
            found.append((f"shelf of {have} lots, {moved} lines", "  ".join(figures)))
    return found
