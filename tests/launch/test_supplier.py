"""The supplier that is not there: takes an order once, names a day, and sends short, late and mixed parcels by its draw."""

import datetime as dt
import http.client
import json
import subprocess
import sys
import threading
from contextlib import contextmanager

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.days_ahead import days_in, pass_days
from wembit.standins.supplier import server
from wembit.standins.supplier.model import LATE_DAYS, Book, Otherwise, Unreadable

TODAY = dt.date(2026, 11, 30)
NUMBERS = st.from_regex(r"W-[0-9A-F]{10}", fullmatch=True)


class Days:
    """A calendar that goes on when it is told to."""

    def __init__(self):
        self.ahead = 0

    def __call__(self):
        return TODAY + dt.timedelta(self.ahead)


def order(number="W-1", packs=(2, 1), **more):
    lines = [{"line": f"l{n}", "article": f"wool {n}", "pack": 25.0, "count": count} for n, count in enumerate(packs)]
    return {"order": number, "wanted_in_days": 6, "lines": lines, **more}


@given(NUMBERS, st.lists(st.integers(1, 9), min_size=1, max_size=4), st.booleans())
def test_what_comes_is_what_was_ordered_or_a_pack_less_and_a_wish_for_one_lot_is_kept(number, packs, one_lot):
    days = Days()
    book = Book(days)
    told = book.place(order(number, packs, one_dye_lot=one_lot))
    assert told["state"] == "confirmed"
    assert told["arrives_on"] == (TODAY + dt.timedelta(6)).isoformat()
    days.ahead = 6
    there = book.find(number)
    assert there["state"] in ("delayed", "delivered")
    days.ahead = 6 + LATE_DAYS
    note = book.find(number)
    assert note["state"] == "delivered"
    for line, count in zip(note["lines"], packs, strict=True):
        assert sum(lot["count"] for lot in line["lots"]) == line["count"] <= count
        assert len(line["lots"]) <= (1 if one_lot else 2)
    short = sum(packs) - sum(line["count"] for line in note["lines"])
    assert short in (0, 1)
    assert bool(note["follows_on"]) == bool(short)


def test_it_does_now_and_then_what_suppliers_do():
    days = Days()
    book = Book(days)
    for n in range(60):
        book.place(order(f"W-{n}"))
    assert 5 < sum(placed.is_late for placed in book.all()) < 30
    assert 5 < sum(placed.is_short for placed in book.all()) < 40
    assert 5 < sum(placed.has_two_lots for placed in book.all()) < 40


def test_twice_is_once_and_otherwise_is_refused():
    days = Days()
    book = Book(days)
    first = book.place(order())
    days.ahead = 2
    assert book.place(order()) == first
    assert len(book.all()) == 1
    with pytest.raises(Otherwise):
        book.place(order(packs=(5,)))


@pytest.mark.parametrize(
    "given",
    [
        None, [], "order", 7, {}, {"order": "W-1"}, order(packs=()), order(packs=(0,)), order(packs=(1000,)), order(number=""),
        order(number="x" * 65), order(number="a\nb"), order(wanted_in_days=-1), order(wanted_in_days="soon"),
        order(one_dye_lot="yes"), {"order": "W-1", "lines": [{"article": "moss", "pack": "much", "count": 1}]},
        {"order": "W-1", "lines": [{"article": "moss", "pack": -5, "count": 1}]}, order(packs=(True,)),
    ],
)  # fmt: skip
def test_an_order_that_cannot_be_read_is_not_in_the_book(given):
    book = Book(Days())
    with pytest.raises(Unreadable):
        book.place(given)
    assert book.all() == []


@contextmanager
def counter(days=None):
    with server.Counter(days) as there:
        threading.Thread(target=there.serve_forever, args=[0.01], daemon=True).start()
        yield there
        there.shutdown()


def asked(there, method, path, body=None, headers=None):
    line = http.client.HTTPConnection("127.0.0.1", there.server_port, timeout=5)
    line.request(
        method, path, body if body is None or isinstance(body, (bytes, str)) else json.dumps(body), headers or {}
    )
    answer = line.getresponse()
    return answer.status, answer.read()


def test_over_the_line_it_answers_as_its_book_does():
    with counter() as there:
        status, first = asked(there, "POST", "/orders", order())
        assert status == 201 and json.loads(first)["order"] == "W-1"
        assert asked(there, "POST", "/orders", order())[1] == first
        assert asked(there, "POST", "/orders", order(packs=(9,)))[0] == 409
        assert asked(there, "POST", "/orders", b"not json")[0] == 422
        assert asked(there, "POST", "/orders", order(packs=()))[0] == 422
        assert json.loads(asked(there, "GET", "/orders/W-1")[1])["state"] == "confirmed"
        assert asked(there, "GET", "/orders/W-2")[0] == 404
        assert b"W-1" in asked(there, "GET", "/")[1]
        assert asked(there, "GET", "/", headers={"Host": "evil.example"})[0] == 403


def test_a_day_passes_on_its_panel_alone(tmp_path):
    days = tmp_path / "days"
    days.write_text("0")
    with counter(days) as there:
        assert asked(there, "POST", "/panel/day", headers={"Origin": "http://evil.example"})[0] == 403
        assert days_in(days) == 0
        assert asked(there, "POST", "/panel/day", headers={"Origin": there.address})[0] == 303
        assert days_in(days) == 1
        assert there.book.today() == dt.date.today() + dt.timedelta(1)
    with counter() as there:
        assert asked(there, "POST", "/panel/day")[0] == 404, "where no day can pass, none does"
        assert b"A day passes" not in asked(there, "GET", "/")[1]


def test_it_can_answer_nonsense_and_what_is_named_on_its_panel_is_no_markup():
    with counter() as there:
        asked(there, "POST", "/orders", order(number="<b>W</b>"))
        assert b"<b>W</b>" not in asked(there, "GET", "/")[1]
        assert asked(there, "POST", "/panel/mood", "mood=nonsense")[0] == 303
        with pytest.raises(ValueError, match=r".+"):
            json.loads(asked(there, "POST", "/orders", order())[1])
        assert asked(there, "POST", "/panel/mood", "mood=angry")[0] == 404


def test_days_that_cannot_be_read_are_none(tmp_path):
    file = tmp_path / "days"
    assert days_in(None) == days_in(file) == 0
    file.write_text("soon")
    assert days_in(file) == 0
    assert pass_days(file, 2) == 2
    assert pass_days(file, -5) == 2


def test_it_ends_with_who_started_it():
    process = subprocess.Popen(
        [sys.executable, "-m", "wembit.standins.supplier", "0", "--with-parent"], stdin=subprocess.PIPE
    )
    process.communicate(timeout=20)
    assert process.returncode == 0
