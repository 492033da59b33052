"""An order goes out as a file and comes back as a note: once, in time or late, whole or short; nonsense changes nothing."""

import csv
import datetime as dt
import io
import json
import threading
import uuid

import pytest
from django.conf import settings

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import form_at, forms_of
from tests.web.helpers import get, post, text, words
from tests.web.shared import shared
from wembit.standins.supplier.model import Placed
from wembit.standins.supplier.server import Counter
from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.restock import supplier_bridge
from wembit.web.restock.models import ARRIVED, DRAFT, SENT, Order, OrderLine, Supplier
from wembit.web.restock.queries import coming_by_item, on_the_way
from wembit.web.stash.models import Lot, Movement
from wembit.web.studio.models import VIEWER


@shared
def moss(owner):
    return make.lot(owner, "moss", "4")


@pytest.fixture
def order(owner, studio, moss):
    """Four packs of 25 g of moss on the list of a supplier who takes files."""
    make.offer(owner, moss.item, "25", "2.60", lead=5)
    Supplier.objects.update(takes_files=True)
    made = Order.objects.create(studio=studio, supplier=Supplier.objects.get())
    OrderLine.objects.create(studio=studio, order=made, item=moss.item, pack=25, price="2.60", count=4)
    return made


@pytest.fixture
def counter(monkeypatch):
    with Counter() as there:
        threading.Thread(target=there.serve_forever, args=[0.01], daemon=True).start()
        monkeypatch.setattr(settings, "WEMBIT_SUPPLIER", there.address)
        yield there
        there.shutdown()


def on(counter, monkeypatch, days):
    """So many days later at the supplier's."""
    monkeypatch.setattr(counter.book, "today", lambda: dt.date.today() + dt.timedelta(days))


def sure(order, *, late=False, short=False, two=False):
    """The same order under a number that draws what is wished."""
    numbers = (uuid.UUID(int=n << 90) for n in range(1, 10_000))
    pk = next(pk for pk in numbers if drawn(Order(pk=pk).number) == (late, short, two))
    lines = list(order.lines.all())
    Order.objects.filter(pk=order.pk).delete()
    made = Order.objects.create(pk=pk, studio=order.studio, supplier=order.supplier)
    for line in lines:
        OrderLine.objects.create(
            studio=order.studio, order=made, item=line.item, pack=line.pack, price=line.price, count=line.count
        )
    return made


def drawn(number):
    placed = Placed(number, "", [], False, dt.date.today(), dt.date.today())
    return placed.is_late, placed.is_short, placed.has_two_lots


def test_it_is_sent_and_comes_on_the_day_that_is_named(client, order, counter):
    page = get(client, "restock/")
    assert form_at(page, f"order/{order.pk}/place/").send(client).status_code == 302
    order.refresh_from_db()
    assert (order.state, order.expected_on) == (SENT, dt.date.today() + dt.timedelta(5))
    assert order.note["state"] == "confirmed"
    assert "has it and sends it for" in words(get(client, "restock/"))
    post(client, f"restock/order/{order.pk}/place/")
    assert "sent already" in words(get(client, "restock/"))
    assert len(counter.book.all()) == 1


def test_a_late_parcel_says_so_and_moves_what_is_expected(client, order, counter, monkeypatch):
    order = sure(order, late=True)
    post(client, f"restock/order/{order.pk}/place/")
    on(counter, monkeypatch, 6)
    form_at(get(client, "restock/"), f"order/{order.pk}/ask/").send(client)
    order.refresh_from_db()
    assert order.expected_on == dt.date.today() + dt.timedelta(8)
    assert "It is late" in words(get(client, "restock/"))
    assert ", late" in words(get(client, "restock/"))


def test_a_short_parcel_of_two_lots_is_unpacked_as_its_note_says_and_the_rest_stays_open(
    client, owner, order, moss, counter, monkeypatch
):
    order = sure(order, short=True, two=True)
    post(client, f"restock/order/{order.pk}/place/")
    on(counter, monkeypatch, 5)
    answer = post(client, f"restock/order/{order.pk}/ask/")
    assert answer["Location"].endswith(f"/restock/order/{order.pk}/arrival/")
    page = get(client, f"restock/order/{order.pk}/arrival/")
    form = next(form for form in forms_of(page) if "amount_0" in form.fields)
    form.action = f"/s/saltgrass/restock/order/{order.pk}/arrival/"
    assert (form.fields["amount_0"], form.fields["amount_1"]) == ("50", "25")
    assert form.fields["dye_lot_0"].startswith("S-") and form.fields["dye_lot_0"] != form.fields["dye_lot_1"]
    assert form.fields["follows"] == "1", "the note names a day for the rest"
    form.send(client)
    order.refresh_from_db()
    assert order.state == ARRIVED
    assert sorted(Lot.objects.filter(item=moss.item).exclude(pk=moss.pk).values_list("on_hand", flat=True)) == [25, 50]
    (rest,) = on_the_way(owner.studio)
    assert (rest.order.rest_of, [line.count for line in rest.lines]) == (order, [1])
    assert rest.order.expected_on == dt.date.today() + dt.timedelta(5 + 7)
    assert coming_by_item(owner.studio, [moss.item_id])[moss.item_id].on_the_way == 25
    assert "The rest from" in words(get(client, "restock/"))


def test_a_taken_back_arrival_is_on_its_way_whole_and_no_rest_beside_it(
    client, owner, order, moss, counter, monkeypatch
):
    order = sure(order, short=True)
    post(client, f"restock/order/{order.pk}/place/")
    on(counter, monkeypatch, 5)
    post(client, f"restock/order/{order.pk}/ask/")
    post(client, f"restock/order/{order.pk}/arrival/", amount_0="75", dye_lot_0="", drawer_0="", follows="1")
    assert coming_by_item(owner.studio, [moss.item_id])[moss.item_id].on_the_way == 25
    post(client, "undo/")
    assert coming_by_item(owner.studio, [moss.item_id])[moss.item_id].on_the_way == 100
    post(client, "again/")
    assert coming_by_item(owner.studio, [moss.item_id])[moss.item_id].on_the_way == 25


def test_what_is_not_wished_for_any_more_is_not_on_its_way(client, owner, order, moss):
    post(client, f"restock/order/{order.pk}/send/")
    post(client, f"restock/order/{order.pk}/arrival/", amount_0="75", dye_lot_0="", drawer_0="")
    assert moss.item_id not in coming_by_item(owner.studio, [moss.item_id])
    assert Movement.objects.filter(kind="received").count() == 1


def test_a_wish_for_one_dye_lot_goes_with_the_file_and_can_be_taken_back(client, order, counter):
    form_at(get(client, "restock/"), f"order/{order.pk}/wish/").send(client, wished="1")
    assert json.loads(get(client, f"restock/order/{order.pk}/order.json"))["one_dye_lot"] is True
    post(client, "undo/")
    assert json.loads(get(client, f"restock/order/{order.pk}/order.json"))["one_dye_lot"] is False
    post(client, f"restock/order/{order.pk}/wish/", wished="1")
    post(client, f"restock/order/{order.pk}/place/")
    assert counter.book.all()[0].one_dye_lot
    post(client, f"restock/order/{order.pk}/wish/")
    assert "sent already" in words(get(client, "restock/"))


@pytest.mark.parametrize(("mood", "said"), [("nonsense", "something odd"), ("silent", "does not answer")])
def test_a_supplier_who_answers_badly_or_never_changes_nothing(client, order, counter, monkeypatch, mood, said):
    monkeypatch.setattr("wembit.standins.supplier.server.SILENCE_S", 0.3)
    monkeypatch.setattr(supplier_bridge, "PATIENCE_S", 0.1)
    counter.book.mood = mood
    post(client, f"restock/order/{order.pk}/place/")
    assert said in words(get(client, "restock/"))
    assert Order.objects.get().state == DRAFT
    counter.book.mood = "usual"
    post(client, f"restock/order/{order.pk}/place/")
    assert Order.objects.get().state == SENT
    assert len(counter.book.all()) == 1, "what was heard the first time is not ordered twice"


def test_nobody_there_is_told(client, order, monkeypatch):
    monkeypatch.setattr(settings, "WEMBIT_SUPPLIER", "http://127.0.0.1:1")
    post(client, f"restock/order/{order.pk}/place/")
    assert "does not answer" in words(get(client, "restock/"))
    assert Order.objects.get().state == DRAFT
    monkeypatch.setattr(settings, "WEMBIT_SUPPLIER", "")
    assert "Send the order" not in get(client, "restock/")
    post(client, f"restock/order/{order.pk}/place/")
    assert "takes no order files" in words(get(client, "restock/"))


@pytest.mark.parametrize(
    "said",
    [
        b"", b"[]", b"7", b'"order"', b'{"order": "W-2", "state": "confirmed", "arrives_on": "2026-12-01"}',
        b'{"order": "W-1", "state": "lost", "arrives_on": "2026-12-01"}', b'{"order": "W-1", "state": "confirmed"}',
        b'{"order": "W-1", "state": "confirmed", "arrives_on": "soon"}',
        b'{"order": "W-1", "state": "confirmed", "arrives_on": "0001-01-01"}',
        b'{"order": "W-1", "state": "delivered", "arrives_on": "2026-12-01", "lines": [{"line": "1", "lots": [{}]}]}',
        b'{"order": "W-1", "state": "delivered", "arrives_on": "2026-12-01", "lines": '
        b'[{"line": "1", "lots": [{"dye_lot": "S", "count": -3}]}]}',
        b'{"order": "W-1", "state": "delivered", "arrives_on": "2026-12-01", "lines": '
        b'[{"line": "1", "lots": [{"dye_lot": "S", "count": 1e99}]}]}',
        b"[" * 100_000,
    ],
)  # fmt: skip
def test_what_no_supplier_says_is_not_believed(said):
    with pytest.raises(Refusal):
        supplier_bridge.understood(said, "W-1")


def test_the_order_is_a_page_a_table_and_a_sheet_of_paper(client, order, moss):
    page = words(get(client, f"restock/order/{order.pk}/"))
    assert order.number in page and "4 × 25 g" in page and "13.60 EUR" in page, "10.40 and 3.20 of postage"
    rows = list(
        csv.reader(io.StringIO(client.get(f"/s/saltgrass/restock/order/{order.pk}/order.csv").content.decode()))
    )
    assert rows[1][2:8] == ["moss, Merino tops", "g", "25.00", "4", "2.60", "10.40"]
    assert rows[2][2] == "postage" and rows[2][7] == "3.20"
    paper = client.get(f"/s/saltgrass/restock/order/{order.pk}/order.pdf")
    assert paper["Content-Type"] == "application/pdf"
    assert paper.content.startswith(b"%PDF-") and paper.content.rstrip().endswith(b"%%EOF")
    told = json.loads(get(client, f"restock/order/{order.pk}/order.json"))
    assert told["lines"] == [
        {
            "line": str(order.lines.get().pk),
            "article": "moss, Merino tops",
            "unit": "g",
            "pack": 25.0,
            "count": 4,
            "price": "2.60",
        }
    ]


def test_a_viewer_reads_an_order_and_sends_none(client, studio, order, counter):
    viewer = signed_in(make.member(studio, VIEWER))
    assert viewer.get(f"/s/saltgrass/restock/order/{order.pk}/").status_code == 200
    for press in ("place", "ask", "wish"):
        assert viewer.post(f"/s/saltgrass/restock/order/{order.pk}/{press}/").status_code == 403
    assert counter.book.all() == []


def test_in_the_demo_days_pass_for_all(tmp_path, monkeypatch, studio):
    days = tmp_path / "days"
    days.write_text("3")
    monkeypatch.setenv("WEMBIT_DAYS_FILE", str(days))
    assert clock.now().date() - dt.datetime.now(dt.UTC).date() == dt.timedelta(3)


def test_an_owner_says_who_takes_files(client, order, counter):
    supplier = Supplier.objects.get()
    form = form_at(get(client, f"restock/suppliers/?supplier={supplier.pk}"), f"suppliers/{supplier.pk}/")
    assert form.fields["takes_files"] == "1"
    del form.fields["takes_files"]
    form.send(client)
    supplier.refresh_from_db()
    assert not supplier.takes_files
    assert "Send the order" not in text(client.get("/s/saltgrass/restock/"))
