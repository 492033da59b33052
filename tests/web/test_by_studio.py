"""In a full house every statement finds its rows by the studio's own ids: none reads a table from end to end."""

import json
import re
from decimal import Decimal

import pytest
from django.db import connection, transaction
from django.test.utils import CaptureQueriesContext

from tests.conftest import some
from tests.many_studios import multiply
from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.test_walls import ROUTES, filled, one_of_everything, posted
from wembit.web.bench.actions.take import take
from wembit.web.bench.actions.take_thing import take_thing
from wembit.web.figures.models import Layer
from wembit.web.stash.models import Item, Movement, OwnBreed
from wembit.web.studio.models import Studio
from wembit.web.tenancy import Owned

COPIES = 60
INDEXED = {"SET LOCAL enable_seqscan = off", "SET LOCAL enable_hashjoin = off", "SET LOCAL enable_mergejoin = off",
           "SET LOCAL enable_material = off"}  # fmt: skip
ANY_HOUSE = {"studio_user", "studio_studio", "studio_link"}  # found by name, slug and token, before the studio is known


def owned(model=Owned):
    for kind in model.__subclasses__():
        yield kind._meta.db_table
        yield from owned(kind)


TABLES = set(owned()) - ANY_HOUSE


def read_whole(plan):
    """The studio's tables that a plan reads from end to end."""
    table, condition = (
        plan.get("Relation Name"),
        plan.get("Index Cond") or plan.get("Recheck Cond") or plan.get("TID Cond"),
    )
    if table in TABLES and not condition and plan["Node Type"] not in ("ModifyTable", "LockRows"):
        yield table
    for part in plan.get("Plans", []):
        yield from read_whole(part)


def plans(statements):
    """Each statement's plan, as far as it is one that reads."""
    with connection.cursor() as cursor:
        for setting in INDEXED:
            cursor.execute(setting)
        for sql in statements:
            if re.match(r"(SELECT|UPDATE|DELETE) ", sql):
                cursor.execute(f"EXPLAIN (FORMAT JSON) {sql}")
                answer = cursor.fetchone()[0]
                yield sql, (json.loads(answer) if isinstance(answer, str) else answer)[0]["Plan"]


def beyond(statements):
    """The statements that read a table whose studio they do not name from end to end; looked at twice, since the first guess
    of how many rows there are may be old."""
    for sql, plan in plans(statements):
        if unnamed(sql, plan):
            with connection.cursor() as cursor:
                cursor.execute("ANALYZE")
            yield from ((sql, table) for _, again in plans([sql]) for table in unnamed(sql, again))


def has_rows(table):
    with connection.cursor() as cursor:
        cursor.execute(f"SELECT EXISTS (SELECT 1 FROM {table})")
        return cursor.fetchone()[0]


def unnamed(sql, plan):
    whole = [table for table in read_whole(plan) if has_rows(table)]  # of an empty table every plan is as good
    return [table for table in whole if not re.search(rf'"?{table}"?\."studio_id" = ', sql)]


@pytest.fixture
def full_house(owner):
    ids = one_of_everything(owner)
    breed = OwnBreed.objects.create(studio=owner.studio, name="Fen longwool", micron_um=31)
    Item.objects.filter(pk=ids["item_id"]).update(own_breed=breed)
    take_thing(owner, ids["thing_id"], press=make.press())
    take(owner, ids["layer_id"], ids["lot_id"], Decimal("0.5"), press=make.press())
    with connection.cursor() as cursor:
        multiply(cursor, COPIES)
        cursor.execute("ANALYZE")
    return ids


def test_the_house_is_full_and_each_studio_whole(full_house):
    assert Studio.objects.count() == COPIES + 1
    for studio in Studio.objects.all()[:9]:
        assert Movement.objects.of(studio).count() == Movement.objects.filter(lot__item__studio=studio).count() > 0
        assert (
            Layer.objects.of(studio).count() == Layer.objects.filter(slot__version__figure__studio=studio).count() > 0
        )


def test_no_address_reads_a_table_from_end_to_end(owner, full_house):
    client, faults = signed_in(owner), {}
    for name, route in some(ROUTES, 35, "by studio"):
        for ask in (lambda: client.get(filled(route, full_house)), lambda: posted(client, route, full_house)):  # noqa: B023
            with transaction.atomic():
                with CaptureQueriesContext(connection) as caught:
                    ask()
                for sql, table in beyond({row["sql"] for row in caught.captured_queries}):
                    faults.setdefault(sql, (name, table))
                transaction.set_rollback(True)
    assert not faults, "\n".join(f"{name}, {table}: {sql[:400]}" for sql, (name, table) in faults.items())


def test_a_statement_without_the_studio_is_found(full_house):
    everywhere = str(Movement.objects.filter(kind="pulled").values("pk").query).replace("pulled", "'pulled'")
    assert list(beyond([everywhere])) == [(everywhere, "stash_movement")]
