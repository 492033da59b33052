"""The scale that is not there behaves like one that is, and its bridge answers as the protocol says."""

import http.client
import json
import subprocess
import sys
import threading
import time
from contextlib import contextmanager

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.standins.scale import server
from wembit.standins.scale.model import CAPACITY_G, SETTLES_S, STEP_G, Scale

WEIGHTS = st.floats(0, 400)


class Clock:
    """Seconds that go on when they are told to."""

    def __init__(self):
        self.at = 1000.0

    def __call__(self):
        return self.at


def scale():
    clock = Clock()
    return clock, Scale(clock)


@given(st.lists(st.tuples(WEIGHTS, st.floats(0, 3)), min_size=1, max_size=8))
def test_it_shows_hundredths_and_in_the_end_what_lies_on_it(loads):
    clock, on = scale()
    for load, wait in loads:
        on.lay(load - on.load_g)
        clock.at += wait
        reading = on.read()
        assert abs(reading.grams / STEP_G - round(reading.grams / STEP_G)) < 1e-6
        assert reading.stable == (clock.at - on._changed >= SETTLES_S)
    clock.at += SETTLES_S
    assert on.read().grams == pytest.approx(loads[-1][0], abs=STEP_G / 2 + 1e-9)
    assert on.read().stable


@given(WEIGHTS, WEIGHTS, st.floats(0, 1.09))
def test_on_its_way_it_is_not_steady_and_swings_no_further_than_a_tenth(before, after, since):
    clock, on = scale()
    on.lay(before)
    clock.at += 2
    on.lay(after - before)
    clock.at += since
    reading = on.read()
    assert not reading.stable
    room = 0.1 * abs(after - before) + STEP_G
    assert min(before, after) - room <= reading.grams <= max(before, after) + room


def test_tare_overload_plug_and_drift():
    clock, on = scale()
    on.lay(12.34)
    clock.at += 2
    on.tare()
    assert (on.read().grams, on.read().stable) == (0, True)
    on.lay(1)
    clock.at += 2
    assert on.read().grams == 1
    on.lay(CAPACITY_G)
    assert (on.read().grams, on.read().state, on.read().stable) == (None, "overload", False)
    on.plug(False)
    assert on.read().state == "unplugged"
    on.lay(-CAPACITY_G)
    on.plug(True)
    assert not on.read().stable, "it settles first"
    clock.at += 2
    assert on.read().grams == 13.34, "what was tared is forgotten"
    on.drift(True)
    clock.at += 60
    assert on.read().grams == pytest.approx(13.64, abs=STEP_G)
    on.drift(False)
    clock.at += 60
    assert on.read().grams == pytest.approx(13.64, abs=STEP_G)


@contextmanager
def bridge():
    with server.Bridge(Scale(time.monotonic)) as found:
        threading.Thread(target=found.serve_forever, daemon=True).start()
        yield found
        found.shutdown()


def ask(found, method, path, body=None, **headers):
    connection = http.client.HTTPConnection("127.0.0.1", found.server_port, timeout=10)
    connection.request(method, path, body, headers)
    answer = connection.getresponse()
    return answer.status, answer.read(), answer.headers


def test_the_bridge_answers_as_the_protocol_says():
    with bridge() as found:
        assert ask(found, "POST", "/panel/lay", "grams=50")[0] == 200
        time.sleep(SETTLES_S + 0.1)
        status, body, headers = ask(found, "GET", "/reading")
        reading = json.loads(body)
        assert (status, reading["grams"], reading["stable"], reading["state"]) == (200, 50.0, True, "ok")
        assert headers["Access-Control-Allow-Origin"] == "*"
        assert headers["Cache-Control"] == "no-store"
        assert ask(found, "POST", "/tare")[0] == 200
        assert json.loads(ask(found, "GET", "/reading")[1])["grams"] == 0
        for path in ("/", "/panel.css", "/panel.js"):
            assert ask(found, "GET", path)[0] == 200
        assert [ask(found, "GET", path)[0] for path in ("/etc/passwd", "/../model.py")] == [404, 404]
        assert [ask(found, "POST", "/panel/lay", body)[0] for body in ("grams=much", "grams=nan", "", "grams=1e9")] == [
            422
        ] * 4


def test_no_page_of_somebody_else_lays_wool_on_it():
    with bridge() as found:
        assert ask(found, "POST", "/panel/lay", "grams=5", Origin="http://evil.test")[0] == 403
        assert ask(found, "GET", "/reading", Host="evil.test")[0] == 403
        assert ask(found, "POST", "/panel/lay", "grams=5", Origin=found.address)[0] == 200


def test_the_stream_goes_on_and_only_so_many_listen(monkeypatch):
    monkeypatch.setattr(server, "MOST_LISTENERS", 2)
    with bridge() as found:
        listeners = []
        for _ in range(2):
            connection = http.client.HTTPConnection("127.0.0.1", found.server_port, timeout=10)
            connection.request("GET", "/readings")
            answer = connection.getresponse()
            assert answer.headers["Content-Type"] == "text/event-stream"
            said = [answer.fp.readline() for _ in range(5)][::2]
            numbers = [json.loads(line.removeprefix(b"data: "))["number"] for line in said]
            assert numbers == sorted(set(numbers))
            listeners.append((connection, answer))
        assert ask(found, "GET", "/readings")[0] == 503


def test_it_ends_with_who_started_it():
    child = subprocess.Popen(
        [sys.executable, "-m", "wembit.standins.scale", "0", "--with-parent"], stdin=subprocess.PIPE
    )
    child.stdin.close()
    assert child.wait(timeout=20) == 0
