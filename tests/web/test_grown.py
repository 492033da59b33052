"""The studio that the benchmarks grow by SQL is one that makers could have made: its books are true."""

import pytest
from django.db import connection
from django.db.models import Sum

from benchmarks.big import EACH, GROW_LEDGER, GROW_SHELF
from tests.web import factories as make
from wembit.web.restock.queries import tide_lines
from wembit.web.stash.models import Item, Lot, Movement

pytestmark = pytest.mark.django_db


def test_the_grown_shelf_and_its_ledger_are_true(owner):
    for drawer in ("A1", "A2", "A3", "A4", "A5", "A6"):
        make.lot(owner, "oat", drawer=drawer)
    with connection.cursor() as cursor:
        cursor.execute(GROW_SHELF, {"fibres": 3, "lots": 9, "each": EACH, "mark": "x"})
        cursor.execute(GROW_LEDGER, {"pairs": 20, "mark": "y"})
    assert (Item.objects.filter(name__startswith="wool ").count(), Lot.objects.count()) == (3, 15)
    for lot in Lot.objects.all():
        assert Movement.objects.filter(lot=lot).aggregate(total=Sum("amount"))["total"] == lot.on_hand
    assert tide_lines(owner.studio) == []
