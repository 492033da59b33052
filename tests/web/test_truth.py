"""Truth on real PostgreSQL: many hands at once, a press twice, a server killed between two pulls."""

import os
import signal
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from decimal import Decimal as D

import pytest
from django.db import connection, connections
from django.test import Client

from tests.web import factories as make
from tests.web.conftest import signed_in
from wembit.web.errors import Refusal
from wembit.web.stash.actions.merge import merge
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.ledger import Press, Short
from wembit.web.stash.models import Entry, Lot, Movement
from wembit.web.studio.models import Deed, Member


@pytest.fixture
def owner(db):
    """Committed where a test commits."""
    return make.studio_owner()


pytestmark = pytest.mark.django_db(transaction=True)
WORKERS = 8


def at_once(do, jobs):
    gate = threading.Barrier(WORKERS)

    def run(job):
        gate.wait(timeout=20)
        try:
            return do(job)
        except Refusal as trouble:
            return trouble
        finally:
            connections.close_all()

    with ThreadPoolExecutor(WORKERS) as pool:
        return list(pool.map(run, jobs))


def test_eight_workers_never_take_a_lot_below_zero_nor_lose_a_gram():
    owner = make.studio_owner()
    lot = make.lot(owner, grams="20")

    def five_pulls(worker):
        got = 0
        for turn in range(5):
            try:
                pull(owner, lot.pk, D(1), press=Press(f"{worker}-{turn}"))
                got += 1
            except Short:
                pass
        return got

    got = at_once(five_pulls, range(WORKERS))
    assert sum(got) == 20
    assert Lot.objects.get(pk=lot.pk).on_hand == 0
    assert sum(Movement.objects.filter(lot=lot).values_list("amount", flat=True)) == 0


def test_the_same_press_from_eight_hands_counts_once():
    owner = make.studio_owner()
    lot = make.lot(owner, grams="20")
    found = at_once(lambda _: pull(owner, lot.pk, D(3), press=Press("one")), range(WORKERS))
    assert len({each.pk for each in found}) == 1
    assert Lot.objects.get(pk=lot.pk).on_hand == 17


def test_crossing_merges_wait_for_each_other_and_keep_every_gram():
    owner = make.studio_owner()
    lots = [make.lot(owner, grams="10", dye_lot=str(n)) for n in range(4)]
    pairs = [(lots[n % 4], lots[(n + 1) % 4]) for n in range(WORKERS)]
    at_once(lambda pair: merge(owner, pair[0].pk, pair[1].pk, press=make.press()), pairs)
    assert sum(row.on_hand for row in Lot.objects.all()) == 40


def test_the_same_submit_twice_counts_once():
    owner = make.studio_owner()
    lot = make.lot(owner, grams="20")
    client = Client()
    client.force_login(owner.user)
    for _ in range(2):
        answer = client.post(f"/s/saltgrass/stash/lot/{lot.pk}/take/", {"key": "twice", "amount": "2,5"})
        assert answer.status_code == 302
    assert Lot.objects.get(pk=lot.pk).on_hand == D("17.5")


def test_a_killed_server_loses_nothing_that_was_confirmed(tmp_path):
    owner = make.studio_owner()
    lot = make.lot(owner, grams="50")
    client = Client()
    client.force_login(owner.user)
    cookie = client.cookies["sessionid"].value
    database = connection.settings_dict
    url = (
        f"postgres://{database['USER']}:{database['PASSWORD']}@{database['HOST']}:{database['PORT']}/{database['NAME']}"
    )
    env = {**os.environ, "DATABASE_URL": url, "DJANGO_SETTINGS_MODULE": "tests.settings"}
    port = 8600 + os.getpid() % 300
    command = [sys.executable, "-m", "gunicorn", "-c", "wembit/launch/gunicorn.py", "-b", f"127.0.0.1:{port}"]

    def serve():
        server = subprocess.Popen([*command, "wembit.web.wsgi:application"], env=env, start_new_session=True)
        for _ in range(200):
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/health/", timeout=2)
                return server
            except OSError:
                time.sleep(0.1)
        raise AssertionError("the server did not come up")

    def take(key):
        base = f"http://127.0.0.1:{port}"
        token = "a" * 32
        data = f"key={key}&amount=1&csrfmiddlewaretoken={token}".encode()
        headers = {"Cookie": f"sessionid={cookie}; csrftoken={token}", "Referer": base}
        asked = urllib.request.Request(f"{base}/s/saltgrass/stash/lot/{lot.pk}/take/", data, headers)
        try:
            with urllib.request.urlopen(asked, timeout=5) as answer:
                return answer.status == 200
        except OSError:
            return False

    confirmed = 0
    server = serve()
    try:
        confirmed += sum(take(f"a{n}") for n in range(5))
        killer = threading.Timer(0.05, lambda: os.killpg(server.pid, signal.SIGKILL))
        killer.start()
        unsure = [take(f"b{n}") for n in range(6)]
        confirmed += sum(unsure)
        server.wait(timeout=10)
    finally:
        if server.poll() is None:
            os.killpg(server.pid, signal.SIGKILL)
    server = serve()
    try:
        confirmed += sum(take(f"b{n}") for n, done in enumerate(unsure) if not done)  # the same presses again
    finally:
        os.killpg(server.pid, signal.SIGTERM)
        server.wait(timeout=20)
    assert confirmed == 11
    assert Lot.objects.get(pk=lot.pk).on_hand == 39
    assert Entry.objects.filter(verb="pull").count() == 11


def test_eight_suppliers_at_once_are_eight_deeds_of_one_each():
    """What another hand did meanwhile is in nobody else's deed, and so is not taken back with it."""
    owner = make.studio_owner()

    def press(number):
        client = signed_in(Member.objects.select_related("user", "studio").get(pk=owner.pk))
        given = {"name": f"Reed {number}", "lead_days": "3", "postage": "1", "key": make.press().key}
        return client.post(f"{client.base}restock/suppliers/new/", given).status_code

    assert at_once(press, range(WORKERS)) == [302] * WORKERS
    deeds = list(Deed.objects.filter(kind=Deed.ROWS))
    assert len(deeds) == WORKERS
    assert all(len(deed.rows) == 1 for deed in deeds), [len(deed.rows) for deed in deeds]
