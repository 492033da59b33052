"""The product served for browser tests and benchmarks: databases made from a template, gunicorn on a free port."""

from __future__ import annotations

import http.client
import os
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from pathlib import Path
from urllib.parse import urlencode, urlsplit

import psycopg

CHECKOUT = Path(__file__).resolve().parent.parent
PASSWORD = "saltgrass-felt"


def manage(database: str, *words: str) -> None:
    subprocess.run(
        [sys.executable, "manage.py", *words, "--skip-checks"],
        cwd=CHECKOUT,
        env=environment(database),
        check=True,
        stdout=subprocess.PIPE,
    )


def environment(database: str) -> dict[str, str]:
    return os.environ | {"DATABASE_URL": database, "DJANGO_SETTINGS_MODULE": "wembit.web.settings"}


def new_database(name: str, like: str | None = None) -> str:
    """An empty database of the tests' cluster, or a copy of another; its address."""
    given = os.environ["DATABASE_URL"]
    with psycopg.connect(given, autocommit=True) as connection:
        connection.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")
        connection.execute(f"CREATE DATABASE {name}" + (f" TEMPLATE {like}" if like else ""))
    return given.rsplit("/", 1)[0] + f"/{name}"


def demo_database(name: str) -> str:
    """A database with the demo studio, made for today; its address."""
    address = new_database(name)
    manage(address, "migrate", "--verbosity", "0")
    manage(address, "demo")
    return address


@contextmanager
def served(database: str) -> Iterator[str]:
    """gunicorn with the product's own settings against that database; yields its address."""
    _collect_static()
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    command = [sys.executable, "-m", "gunicorn", "-c", "wembit/launch/gunicorn.py", "-b", f"127.0.0.1:{port}"]
    server = subprocess.Popen([*command, "wembit.web.wsgi:application"], cwd=CHECKOUT, env=environment(database))
    try:
        _until_it_answers(server, port)
        yield f"http://127.0.0.1:{port}"
    finally:
        server.terminate()
        server.wait(timeout=30)


@cache
def _collect_static() -> None:
    """Once a process: the files are the same for every database."""
    manage(os.environ["DATABASE_URL"], "collectstatic", "--noinput", "--verbosity", "0")


def _until_it_answers(server: subprocess.Popen, port: int) -> None:
    until = time.monotonic() + 60
    while time.monotonic() < until and server.poll() is None:
        try:
            connection = http.client.HTTPConnection("127.0.0.1", port, timeout=5)
            connection.request("GET", "/sign-in/")
            connection.getresponse()
            return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError("the server did not answer within a minute")


def until_it_has_its_database(address: str) -> None:
    """Wait until the server answers well again. Raises RuntimeError after a minute."""
    until = time.monotonic() + 60
    while time.monotonic() < until:
        connection = http.client.HTTPConnection(urlsplit(address).netloc, timeout=30)
        connection.request("GET", "/sign-in/")
        if connection.getresponse().status == 200:
            return
        time.sleep(0.2)
    raise RuntimeError("the server did not find its database within a minute")


class Visitor:
    """A signed-in visitor who keeps her connection: for measuring pages at the server."""

    def __init__(self, address: str, username: str = "mira", password: str = PASSWORD):
        self.connection = http.client.HTTPConnection(urlsplit(address).netloc, timeout=60)
        self.cookies: dict[str, str] = {}
        self.get("/sign-in/")
        token = self.cookies["csrftoken"]
        body = f"csrfmiddlewaretoken={token}&username={username}&password={password}"
        status, _ = self._send("POST", "/sign-in/", body, {"Content-Type": "application/x-www-form-urlencoded"})
        if status != 302:
            raise RuntimeError(f"signing in answered {status}")

    def get(self, path: str, target: str = "") -> tuple[int, bytes]:
        """As htmx asks for a piece of a page, where a target is told. Asked once more where the server has closed a connection
        that was quiet for long.
        """
        headers = {"HX-Request": "true", "HX-Target": target} if target else {}
        try:
            return self._send("GET", path, None, headers)
        except http.client.RemoteDisconnected:
            self.connection.close()
            return self._send("GET", path, None, headers)

    def post(self, path: str, fields: dict[str, str]) -> tuple[int, bytes]:
        """A press, as htmx sends it."""
        body = urlencode({"csrfmiddlewaretoken": self.cookies["csrftoken"], **fields})
        kind = {"Content-Type": "application/x-www-form-urlencoded", "HX-Request": "true"}
        return self._send("POST", path, body, kind)

    def _send(self, method, path, body, headers) -> tuple[int, bytes]:
        cookies = "; ".join(f"{name}={value}" for name, value in self.cookies.items())
        self.connection.request(method, path, body, {"Cookie": cookies, **headers})
        answer = self.connection.getresponse()
        for line in answer.headers.get_all("Set-Cookie", []):
            name, _, value = line.split(";")[0].partition("=")
            self.cookies[name] = value
        return answer.status, answer.read()
