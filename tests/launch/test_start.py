"""`./start` as a person uses it: serving, stopping, starting twice, ports in use, backups and the way back."""

import os
import signal
import socket
import stat
import tarfile
import time
from pathlib import Path

import pytest

from tests.launch.conftest import PATIENCE, Start, a_house, alive, free_port, page
from wembit.launch.cluster import Cluster


@pytest.fixture(scope="module")
def house():
    """An empty house for all tests of this file that leave it empty: what is made once is there."""
    with a_house() as folder:
        yield folder


@pytest.fixture
def full_house():
    """A house of its own for the demo, with the way to start in it."""
    with a_house() as folder:
        started = Start(folder)
        yield folder, started
        started.stop()


def servers(house: Path) -> list[int]:
    """Process ids of gunicorn and PostgreSQL of that house."""
    found = [house / "server.pid", house / "data" / "postmaster.pid"]
    return [int(path.read_text().split()[0]) for path in found if path.exists()]


def test_an_empty_house_is_served_and_ctrl_c_stops_all_of_it(start, house):
    process, port = start.serving("--empty")
    assert "What is the studio called?" in page(port)
    assert stat.S_IMODE((house / "secret").stat().st_mode) == 0o600
    pids = servers(house)
    assert len(pids) == 2
    assert all(alive(pid) for pid in pids)
    process.send_signal(signal.SIGINT)
    words, _ = process.communicate(timeout=PATIENCE)
    assert process.returncode == 0
    assert "The first visitor makes the studio." in words
    assert f"http://127.0.0.1:{port}/" in words
    assert not any(alive(pid) for pid in pids)


@pytest.mark.whole
def test_the_demo_is_loaded_backed_up_lost_and_restored(full_house, tmp_path):
    house, start = full_house
    process, port = start.serving()
    assert "Sign in" in page(port)
    kept = tmp_path / "house.tar"
    code, words = start.ended("--backup", str(kept))
    assert code == 0 and str(kept) in words, words
    with tarfile.open(kept) as archive:
        assert any(name.endswith(".dump") for name in archive.getnames())
    process.send_signal(signal.SIGINT)
    process.wait(timeout=PATIENCE)

    cluster = Cluster(house)
    cluster.start()
    assert cluster.sql("SELECT count(*) FROM stash_lot", "wembit").strip() > "60"
    cluster.sql("TRUNCATE studio_studio CASCADE", "wembit")
    code, words = start.ended("--restore", str(kept))
    assert code == 1
    assert "Nothing was changed" in words
    code, words = start.ended("--restore", str(kept), "--yes")
    assert code == 0, words
    assert cluster.sql("SELECT name FROM studio_studio", "wembit").strip() == "Saltgrass"
    code, words = start.ended("--restore", __file__, "--yes")
    assert code == 1
    assert "was not written by ./start --backup" in words


def test_a_second_start_from_the_same_folder_says_how_to_end_the_first_and_that_ends_it(start, house):
    process, _ = start.serving("--empty")
    pids = servers(house)
    code, words = start.ended("--empty", "--port", str(free_port()))
    assert code == 1
    assert "./start --stop" in words
    assert "Traceback" not in words
    assert all(alive(pid) for pid in pids), "the first one goes on"
    code, words = start.ended("--stop")
    assert (code, words.strip()) == (0, "Stopped.")
    process.wait(timeout=PATIENCE)
    assert not any(alive(pid) for pid in pids)
    assert start.ended("--stop")[1].strip() == "Nothing was running."


def test_a_port_in_use_gets_a_message_that_says_what_to_do(start):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        code, words = start.ended("--empty", "--port", str(port))
    assert code == 1
    assert f"Port {port} is in use" in words
    assert f"--port {port + 1}" in words
    assert "Traceback" not in words


def test_after_a_kill_of_everything_the_next_start_heals_and_a_killed_database_comes_back(start, house):
    process, port = start.serving("--empty")
    for pid in [*servers(house), process.pid]:
        os.kill(pid, signal.SIGKILL)
    process.wait(timeout=PATIENCE)
    _, port = start.serving("--empty")
    assert "What is the studio called?" in page(port)
    pages_wait_for_a_killed_database(house, port)


def pages_wait_for_a_killed_database(house, port):
    pid = servers(house)[1]
    os.kill(pid, signal.SIGKILL)
    begun = time.monotonic()
    assert "What is the studio called?" in page(port), "asked for while it is away"
    assert time.monotonic() - begun < 20
    answers = [page(port) for _ in range(20)]
    assert all("What is the studio called?" in answer for answer in answers)
    assert servers(house)[1] != pid
    for _ in range(3):
        os.kill(servers(house)[1], signal.SIGKILL)
        assert "What is the studio called?" in page(port), "as often as it happens"


def test_building_the_demo_anew_asks_first(start):
    code, words = start.ended("--demo", "--port", str(free_port()))
    assert code == 1
    assert "Nothing was changed. Add --yes, or answer yes." in words
