"""What an attacker tried: each of these broke the application once."""

import datetime as dt
import http.client
import json
import os
import re
import socket
import time
import tracemalloc
from urllib.parse import urlsplit

import pytest
from django.db import IntegrityError, connection, transaction
from django.test import Client

from tests.serving import served
from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import figure_with, get, post, text, told
from tests.web.test_walls import ROUTES
from wembit.core import units
from wembit.core.tables import Unreadable, read_table
from wembit.web import clock
from wembit.web.bench.models import Making
from wembit.web.figures.models import Figure, Part
from wembit.web.figures.queries import newest_version
from wembit.web.stash.models import Entry, Lot
from wembit.web.studio.models import Link, Member


@pytest.fixture
def owner(db):
    """Committed where a test commits."""
    return make.studio_owner()


FUSES = ["1e99999999", "1e99999999 1/2", "1e400 1/2", "1/1e99999999", "9" * 400, "0." + "1" * 400, f"1/{'9' * 5000}"]


# --- names stay in their studio -------------------------------------------------------------------------------------


def reachable(client, figure) -> str:
    """Every page of the studio's that shows a figure, one after another."""
    ids = {"figure_id": figure.pk, "key": "ball", "position": 0, "number": 1}
    pages = []
    for _, route in ROUTES:
        wanted = re.findall(r"<\w+:(\w+)>", route.removeprefix("s/<slug:studio>/"))
        if "<path" in route or not set(wanted) <= set(ids):
            continue
        rest = re.sub(r"<\w+:(\w+)>", lambda found: str(ids[found[1]]), route.removeprefix("s/<slug:studio>/"))
        answer = client.get(client.base + rest)
        if answer.status_code == 200 and not answer.streaming:
            pages.append(answer.content.decode(errors="ignore"))
    assert len(pages) > 20
    return "\n".join(pages)


def test_a_name_never_shows_in_another_studio_with_equal_shapes(client, owner):
    other = make.studio_owner("Dune", "ana")
    theirs = signed_in(other)
    figures = {}
    for who, visitor, name in ((owner, client, "SECRET COMMISSION"), (other, theirs, "PLAIN BALL")):
        figures[name] = make.figure(who, "Pebble", 37.25)
        Part.objects.filter(studio=who.studio, key="ball").update(name=name)
        assert name in get(visitor, f"figures/{figures[name].pk}/")
    for _ in range(2):
        assert "PLAIN BALL" not in reachable(client, figures["SECRET COMMISSION"])
        assert "SECRET COMMISSION" not in reachable(theirs, figures["PLAIN BALL"])


def test_a_renamed_part_shows_its_new_name_only(client, owner):
    figure = make.figure(owner)
    get(client, f"figures/{figure.pk}/")
    post(client, f"figures/{figure.pk}/part/ball/", name="pearl")
    assert 'aria-label="pearl' in get(client, f"figures/{figure.pk}/")
    assert 'aria-label="ball' not in get(client, f"figures/{figure.pk}/")


# --- numbers --------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("fuse", FUSES)
def test_no_number_of_a_person_is_worked_on_for_long(fuse):
    began = time.process_time()
    for read in (units.number, units.length, units.weight, units.share):
        with pytest.raises(units.Unreadable):
            read(fuse)
    assert time.process_time() - began < 0.5


@pytest.mark.parametrize("fuse", FUSES)
def test_no_address_stops_at_such_a_number(client, fuse):
    for measure in ("weight", "length", "count"):
        answer = client.get(client.base + "understood/", {"name": "x", "x": fuse, "measure": measure})
        assert answer.status_code == 200
    for field in ("colour", "grams"):
        assert client.get(client.base + "colour/", {field: fuse, "parts": fuse}).status_code < 500


# --- moments --------------------------------------------------------------------------------------------------------

LONG_AGO = ["0001-01-01T00:00:00+14:00", "0001-01-01", "1899-12-31T23:59:59+00:00"]


@pytest.mark.parametrize("moment", LONG_AGO)
def test_nothing_happened_before_1900(client, owner, moment):
    lot = make.lot(owner)
    for verb in ("take", "weigh", "put-back", "throw-away"):
        answer = post(client, f"stash/lot/{lot.pk}/{verb}/", amount="1", happened_at=moment)
        assert answer.status_code in (302, 422), verb
    assert not Entry.objects.filter(happened_at__lt=clock.EARLIEST).exists()
    for page in (f"stash/lot/{lot.pk}/", f"stash/fibre/{lot.item_id}/"):
        get(client, page)


def test_a_table_cannot_say_so_either(client, owner):
    make.lot(owner, "moss")
    table = b"kind,name,amount,happened_at\npulled,moss,1,0001-01-01\npulled,moss,1,0001-01-01T00:00:00+14:00\n"
    file = make_file("ledger.csv", table)
    page = text(client.post(client.base + "stash/files/", {"table": file}, follow=True))
    assert page.count("before 1900") == 2


def make_file(name: str, content: bytes):
    from django.core.files.uploadedfile import SimpleUploadedFile

    return SimpleUploadedFile(name, content)


def test_the_database_refuses_such_a_line(owner):
    lot = make.lot(owner)
    entry = lot.movements.get().entry
    entry.pk, entry.client_key, entry.happened_at = None, "x", dt.datetime(1899, 1, 1, tzinfo=dt.UTC)
    with pytest.raises(IntegrityError), transaction.atomic():
        entry.save(force_insert=True)


@pytest.mark.django_db(transaction=True)
def test_a_studio_that_has_such_a_line_reads_on_after_the_migration(owner):
    from importlib import import_module

    lot = make.lot(owner)
    with connection.cursor() as cursor:
        cursor.execute("ALTER TABLE stash_entry DROP CONSTRAINT happened_since_1900")
        cursor.execute("ALTER TABLE stash_entry DISABLE TRIGGER append_only")
        cursor.execute("UPDATE stash_entry SET happened_at = '0001-12-30T10:00:00Z BC'")
        cursor.execute("ALTER TABLE stash_entry ENABLE TRIGGER append_only")
        cursor.execute(import_module("wembit.web.stash.migrations.0011_happened_since_1900").MEND)
        cursor.execute(
            "ALTER TABLE stash_entry ADD CONSTRAINT happened_since_1900 CHECK (happened_at >= '1900-01-01T00:00:00Z')"
        )
    get(signed_in(owner), f"stash/lot/{lot.pk}/")


# --- files ----------------------------------------------------------------------------------------------------------


def peak_mb(do) -> float:
    tracemalloc.start()
    try:
        do()
        return tracemalloc.get_traced_memory()[1] / 1e6
    finally:
        tracemalloc.stop()


@pytest.mark.parametrize(
    "raw",
    [
        b"h," * 200_000 + b"\n" + b"1\n" * 2_000,
        b"name,grams\n" + b"," * 300_000,
        b"name,grams\n" + b"x\n" * 250_000,
        b'name,grams\n"' + b"x" * 100_000 + b'",1\n',
        b",".join([b"h"] * 900) + b"\n" + (b",".join([b"1"] * 900) + b"\n") * 5_000,
    ],
    ids=["columns", "a long row", "rows", "a long cell", "cells"],
)
def test_a_table_takes_no_more_memory_than_its_bytes_allow(raw):
    def read():
        try:
            read_table(raw)
        except Unreadable as fault:
            assert str(fault)

    assert peak_mb(read) < 100 + 40 * len(raw) / 1e6


def file_of(*parts, **more) -> bytes:
    return json.dumps({"wembit_figure": 1, "name": "Big", "slots": ["core", "main"], "parts": parts, **more}).encode()


def ball(key="a", mm=30.0, on=None) -> dict:
    return {
        "key": key, "name": key, "shape": {"kind": "sphere", "diameter_mm": mm}, "firmness": "firm",
        "seat": {"on": on, "t": 0.5, "angle": 0, "by": 0.5} if on else {"on": None, "centre_mm": 15},
        "layers": [{"role": "core", "slot": "main", "rule": {"share": 1}}],
    }  # fmt: skip


CHAIN = [ball("p0"), *(ball(f"p{n}", 5, f"p{n - 1}") for n in range(1, 400))]
SPOTTED = [
    {**ball(f"s{n}", 20, "a"), "layers": [{"role": "detail", "slot": "main", "rule": {"spots": 5000, "across_mm": 1}}]}
    for n in range(5)
]


@pytest.mark.parametrize(
    "content",
    [
        file_of(ball(mm=1e9), scale=20),
        file_of(ball(mm=9_000), scale=20),
        file_of(*CHAIN),
        file_of(ball(), *SPOTTED),
        file_of(ball(), notions=[{"id": "x", "notion": "spaceship", "amount": 1}]),
    ],
    ids=["a giant", "a giant when scaled", "seats upon seats", "spots", "an unknown notion"],
)
def test_a_figure_file_beyond_all_bounds_is_refused_at_once(client, content):
    began = time.process_time()
    answer = client.post(client.base + "figures/take-in/", {"file": make_file("big.json", content)})
    assert told(answer)
    assert time.process_time() - began < 5
    assert not Figure.objects.exists()


def test_the_largest_figure_that_is_taken_in_is_drawn(client):
    content = file_of(ball(mm=9_000), ball("b", 9_000, "a"), *(ball(f"c{n}", 900, "b") for n in range(100)))
    answer = client.post(client.base + "figures/take-in/", {"file": make_file("big.json", content)})
    assert answer.status_code == 302
    began = time.process_time()
    page = client.get(answer.url)
    assert page.status_code == 200
    assert len(page.content) < 2_000_000
    assert time.process_time() - began < 20


def test_a_part_does_not_grow_beyond_ten_metres(client):
    figure = figure_with(client, "Pebble", ("ball", "600"))
    assert "larger than 10 m" in text(post(client, f"figures/{figure.pk}/size/", scale="20", follow=True))
    post(client, f"figures/{figure.pk}/size/", scale="15")
    assert post(client, f"figures/{figure.pk}/part/ball/", diameter_mm="13.5 m").status_code == 422
    assert newest_version(figure).parts.get().shape["diameter_mm"] == 9000


# --- links ----------------------------------------------------------------------------------------------------------


def link_for(client, member) -> str:
    page = text(post(client, f"house/members/{member.pk}/password/"))
    return "/" + re.search(r"https?://[^/]+/(link/[^/\"<]+/)", page)[1]


def test_a_password_link_opens_no_other_studio(client, studio):
    tove = make.member(studio)
    link = link_for(client, tove)
    dune = make.studio_owner("Dune", "ana").studio
    Member.objects.create(studio=dune, user=tove.user, role="owner")
    assert Client().get(link).status_code == 404
    answer = Client().post(link, {"password": "a long new password"})
    assert answer.status_code == 404
    tove.user.refresh_from_db()
    assert tove.user.check_password(make.PASSWORD)


def test_a_password_link_ends_with_the_membership_and_with_any_new_password(client, studio):
    tove = make.member(studio)
    first, second = link_for(client, tove), link_for(client, tove)
    assert Client().post(second, {"password": "a long new password"}).status_code == 302
    assert Client().get(first).status_code == 404, "an older link ends with the new password"
    third = link_for(client, tove)
    tove.user.refresh_from_db()
    tove.user.set_password("chosen at the command line")
    tove.user.save()
    assert Client().get(third).status_code == 404
    fourth = link_for(client, tove)
    tove.delete()
    assert Client().post(fourth, {"password": "a long new password"}).status_code == 404
    assert Link.objects.count() == 4


def test_a_new_password_ends_all_older_sessions(client, studio):
    tove = make.member(studio)
    hers = signed_in(tove)
    assert hers.get(hers.base).status_code == 200
    assert Client().post(link_for(client, tove), {"password": "a long new password"}).status_code == 302
    assert hers.get(hers.base).status_code == 302


# --- the bench ------------------------------------------------------------------------------------------------------


def test_a_layer_without_a_fibre_is_told_when_a_making_begins(client, owner):
    figure = make.figure(owner)
    project = make.project(owner, figure)
    post(client, f"figures/{figure.pk}/part/ball/layer/", role="detail", new_slot="freckles")
    answer = client.post(client.base + f"bench/begin/{project.pk}/", follow=True)
    assert answer.status_code == 200
    assert "Choose a fibre first for: freckles." in text(answer)
    assert not Making.objects.exists()
    assert Lot.objects.exists()


# --- the server -----------------------------------------------------------------------------------------------------


def half_sent(host: str, port: int, words: bytes) -> socket.socket:
    line = socket.create_connection((host, port), timeout=10)
    line.sendall(words)
    return line


@pytest.mark.whole
def test_half_sent_requests_hold_up_nobody():
    head = b"POST /sign-in/ HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/x-www-form-urlencoded\r\n"
    with served(os.environ["DATABASE_URL"]) as address:
        where = urlsplit(address)
        halves = [head + b"Content-Length: 1000\r\n\r\nusername=", head[:60]]
        lines = [half_sent(where.hostname, where.port, halves[n % 2]) for n in range(40)]
        try:
            time.sleep(0.3)
            began = time.monotonic()
            asked = http.client.HTTPConnection(where.netloc, timeout=8)
            asked.request("GET", "/health/")
            assert asked.getresponse().status == 200
            assert time.monotonic() - began < 5
            long = http.client.HTTPConnection(where.netloc, timeout=8)
            long.putrequest("POST", "/sign-in/")
            long.putheader("Content-Length", "300000000")
            long.endheaders()
            assert long.getresponse().status == 413, "refused by its length, before it is sent"
        finally:
            for line in lines:
                line.close()
