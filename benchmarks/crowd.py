"""A thousand studios in one house: twenty visitors without pauses, and what statements read of the studios beside theirs."""

from __future__ import annotations

import json
import os
import random
import re
import subprocess
import sys
import threading
import time
import uuid
from collections.abc import Iterator

import psycopg

from tests.many_studios import multiply
from tests.serving import CHECKOUT, Visitor, environment, new_database, served

from .big import GROW_LEDGER
from .pages import ID, addresses

STUDIOS, LINES = 1_000, 5_000  # lines of the ledger in each
VISITORS, SECONDS, PRESSES = 20, 60.0, 0.2  # the last is the share of presses
OWN, CRUMBS = 3, 300  # a scan may read so many times the studio's own rows, and some beside
Row = tuple[str, str]


def rows(like: str) -> Iterator[Row]:
    """From a database with the demo."""
    database = new_database("benchmark_crowd", like=like)
    begun = time.monotonic()
    movements = _fill(database)
    yield f"{STUDIOS:,} studios", f"{movements:,} movements, made in {time.monotonic() - begun:.0f} s"
    with served(database) as address:
        Visitors(address, 5.0).found()  # warm
        yield "twenty visitors", Visitors(address, SECONDS).found()
    done = subprocess.run(
        [sys.executable, "-m", "benchmarks.crowd"],
        cwd=CHECKOUT, env=environment(database), check=True, text=True, stdout=subprocess.PIPE,
    )  # fmt: skip
    yield from (("reads beside its studio", line) for line in done.stdout.splitlines() or ["no statement of any page"])


def _fill(database: str) -> int:
    with psycopg.connect(database) as connection, connection.cursor() as cursor:
        have = cursor.execute("SELECT count(*) FROM stash_movement").fetchone()[0]
        cursor.execute(GROW_LEDGER, {"pairs": (LINES - have) // 2, "mark": uuid.uuid4().hex[:6]})
    with psycopg.connect(database) as connection, connection.cursor() as cursor:
        _django()
        multiply(cursor, STUDIOS - 1)
    with psycopg.connect(database, autocommit=True) as connection:
        connection.execute("VACUUM ANALYZE")
        return connection.execute("SELECT count(*) FROM stash_movement").fetchone()[0]


def _django() -> None:
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "wembit.web.settings")
    import django

    django.setup()


class Visitors:
    """Twenty at once, each in a studio of her own, who never stop to think."""

    def __init__(self, address: str, seconds: float):
        self.address, self.seconds = address, seconds
        self.took: list[float] = []
        self.errors = 0

    def found(self) -> str:
        """Requests a second, median and p95, errors."""
        ready = threading.Barrier(VISITORS)
        threads = [threading.Thread(target=self._visit, args=(number, ready)) for number in range(1, VISITORS + 1)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        took = sorted(self.took)
        middle, slow = (took[int(len(took) * share)] * 1000 for share in (0.5, 0.95))
        rate = f"{len(took) / self.seconds:.1f} requests a second"
        return f"{rate}, {middle:.0f} / {slow:.0f} ms ({slow / middle:.1f} times), {self.errors} errors"

    def _visit(self, number: int, ready: threading.Barrier) -> None:
        chance = random.Random(number)
        copy = number * (STUDIOS // VISITORS) - 1
        visitor, base = Visitor(self.address, f"mira-{copy}"), f"/s/saltgrass-{copy}/"
        pages = addresses(visitor, base)
        bags = sorted(set(re.findall(f"{base}stash/lot/({ID})/", visitor.get(base + "stash/")[1].decode())))
        ready.wait()
        until = time.monotonic() + self.seconds
        while time.monotonic() < until:
            begun = time.monotonic()
            if chance.random() < PRESSES:
                fields = {"amount": f"{chance.randrange(2_000, 9_000) / 100}", "key": str(uuid.uuid4()), "anyway": "1"}
                status, _ = visitor.post(f"{base}stash/lot/{chance.choice(bags)}/weigh/", fields)
            else:
                status, _ = visitor.get(base + chance.choice(pages))
            self.took.append(time.monotonic() - begun)
            self.errors += status >= 500  # half a needle, which a weighing of notions may ask for, is refused


def main() -> None:
    """Each statement of the main pages of one studio whose plan reads far more rows of a table than the studio has in it."""
    _django()
    from django.db import connection
    from django.test import Client
    from django.test.utils import CaptureQueriesContext

    from wembit.web.studio.models import Member, Studio

    studio = Studio.objects.get(slug="saltgrass-500")
    client = Client(SERVER_NAME="localhost")
    client.force_login(Member.objects.get(studio=studio, role="owner").user)
    base, statements = "/s/saltgrass-500/", {}
    for page in addresses(_Signed(client), base):
        studio.pressed()
        with CaptureQueriesContext(connection) as caught:
            client.get(base + page)
        statements.update({row["sql"]: page for row in caught.captured_queries if row["sql"].startswith("SELECT")})
    own: dict[str, int] = {}
    with connection.cursor() as cursor:
        for sql, page in statements.items():
            cursor.execute(f"EXPLAIN (ANALYZE, FORMAT JSON) {sql}")
            answer = cursor.fetchone()[0]
            for table, read in _read((json.loads(answer) if isinstance(answer, str) else answer)[0]["Plan"]):
                if table not in own:
                    own[table] = _rows_of(cursor, table, studio.pk)
                if read > OWN * own[table] + CRUMBS:
                    print(f"{page or 'today'}: {read:,} rows of {table} ({own[table]} are its own): {sql[:160]}")


def _read(plan: dict) -> Iterator[tuple[str, int]]:
    """Each table that a plan looks through, and how many of its rows."""
    if "Relation Name" in plan:
        removed = plan.get("Rows Removed by Filter", 0) + plan.get("Rows Removed by Index Recheck", 0)
        yield plan["Relation Name"], int((plan["Actual Rows"] + removed) * plan["Actual Loops"])
    for part in plan.get("Plans", []):
        yield from _read(part)


def _rows_of(cursor, table: str, studio: uuid.UUID) -> int:
    cursor.execute(
        "SELECT 1 FROM information_schema.columns WHERE table_name = %s AND column_name = 'studio_id'", [table]
    )
    if not cursor.fetchone():
        return 1
    cursor.execute(f"SELECT count(*) FROM {table} WHERE studio_id = %s", [studio])
    return cursor.fetchone()[0]


class _Signed:
    """A test client, as what lists the addresses asks for pages."""

    def __init__(self, client):
        self.client = client

    def get(self, path: str) -> tuple[int, bytes]:
        """Status and body."""
        answer = self.client.get(path)
        return answer.status_code, answer.content


if __name__ == "__main__":
    main()
