"""A house of its own for every test of ./start: no cluster, lock or port of the developer's is touched."""

from __future__ import annotations

import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest

from wembit.launch.cluster import Cluster

CHECKOUT = Path(__file__).resolve().parent.parent.parent
PATIENCE = 600  # seconds for what takes 25 on a quiet machine: others may have its processors


@contextmanager
def a_house() -> Iterator[Path]:
    """A folder that the database's user can enter; whatever runs in it is stopped at the end."""
    base = Path("/var/lib/wembit") if os.geteuid() == 0 else Path(tempfile.gettempdir())
    base.mkdir(parents=True, exist_ok=True)
    folder = Path(tempfile.mkdtemp(prefix="tests-", dir=base))
    folder.chmod(0o755)
    yield folder
    Cluster(folder).stop()
    shutil.rmtree(folder)


@pytest.fixture
def house() -> Iterator[Path]:
    """A house of its own."""
    with a_house() as folder:
        yield folder


class Start:
    """`./start` in a house, with what it prints."""

    def __init__(self, house: Path):
        self.house = house
        self.running: list[subprocess.Popen] = []

    def __call__(self, *flags: str, **environment: str) -> subprocess.Popen:
        env = {
            key: value for key, value in os.environ.items() if key != "DATABASE_URL" and not key.startswith("WEMBIT_")
        }
        env |= {"WEMBIT_HOME": str(self.house), "PYTHONUNBUFFERED": "1"} | environment
        process = subprocess.Popen(
            [sys.executable, "-m", "wembit.launch", *flags],
            cwd=CHECKOUT, env=env, text=True, stdin=subprocess.DEVNULL, stdout=subprocess.PIPE, stderr=subprocess.STDOUT,
        )  # fmt: skip
        self.running.append(process)
        return process

    def ended(self, *flags: str, **environment: str) -> tuple[int, str]:
        """Exit code and words of a command that ends by itself."""
        process = self(*flags, **environment)
        words, _ = process.communicate(timeout=PATIENCE)
        return process.returncode, words

    def stop(self) -> None:
        """End whatever still runs."""
        for process in self.running:
            if process.poll() is None:
                process.send_signal(signal.SIGINT)
                process.wait(timeout=PATIENCE)

    def serving(self, *flags: str) -> tuple[subprocess.Popen, int]:
        """The process and its port once a page answers."""
        port = free_port()
        process = self(*flags, "--port", str(port))
        until = time.monotonic() + PATIENCE
        while time.monotonic() < until and process.poll() is None:
            try:
                page(port, "/health/")
                return process, port
            except OSError:
                time.sleep(0.1)
        process.kill()
        raise AssertionError(f"it did not serve: {process.communicate()[0]}")


@pytest.fixture
def start(house) -> Iterator[Start]:
    started = Start(house)
    yield started
    started.stop()


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


def page(port: int, path: str = "/") -> str:
    with urllib.request.urlopen(f"http://127.0.0.1:{port}{path}", timeout=20) as answer:
        return answer.read().decode()


def alive(pid: int) -> bool:
    """Whether a process is there and no corpse."""
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] != "Z"
    except OSError:
        return False
