"""The private cluster: made once, started where it does not run, healed after a kill, never the system's own."""

import os
import signal
import socket
import stat
import subprocess
from collections.abc import Iterator
from pathlib import Path

import psycopg
import pytest

from tests.launch.conftest import a_house
from wembit.launch.cluster import FIRST_PORT, Cluster, Trouble, home, wait_for_end


def count(cluster: Cluster) -> int:
    with psycopg.connect(cluster.url) as connection:
        return connection.execute("SELECT count(*) FROM kept").fetchone()[0]


@pytest.fixture(scope="module")
def made() -> Iterator[Path]:
    """The folder of a cluster that was made, started, filled and stopped."""
    with a_house() as folder:
        cluster = Cluster(folder)
        cluster.start()
        with psycopg.connect(cluster.url, autocommit=True) as connection:
            connection.execute("CREATE TABLE kept AS SELECT generate_series(1, 100)")
        cluster.stop()
        yield folder


@pytest.fixture
def cluster(house, made) -> Cluster:
    """A copy of it that runs."""
    subprocess.run(["cp", "-a", f"{made}/.", str(house)], check=True)
    cluster = Cluster(house)
    cluster.start()
    return cluster


def test_a_second_start_changes_nothing(cluster):
    before = (cluster.data / "postmaster.pid").read_text()
    cluster.start()
    assert (cluster.data / "postmaster.pid").read_text() == before
    assert count(cluster) == 100


def test_it_listens_on_loopback_with_a_password_nobody_else_reads(cluster):
    assert cluster.port >= FIRST_PORT
    assert stat.S_IMODE((cluster.folder / "password").stat().st_mode) == 0o600
    assert cluster.sql("SHOW listen_addresses").strip() == "127.0.0.1"
    with pytest.raises(psycopg.OperationalError):
        psycopg.connect(cluster.url.replace("wembit:", "wembit:x"), connect_timeout=5)


def test_it_is_durable(cluster):
    shown = {name: cluster.sql(f"SHOW {name}").strip() for name in ("fsync", "synchronous_commit", "full_page_writes")}
    assert set(shown.values()) == {"on"}, shown
    assert cluster.sql("SHOW data_checksums").strip() == "on"


def test_after_a_kill_the_next_start_heals_and_nothing_is_lost(cluster):
    pid = int((cluster.data / "postmaster.pid").read_text().split()[0])
    os.kill(pid, signal.SIGKILL)
    assert wait_for_end(pid)
    cluster.start()
    assert count(cluster) == 100


def test_it_comes_back_at_the_port_by_which_a_server_knows_it_or_not_at_all(cluster):
    port = cluster.port
    cluster.stop()
    with socket.socket() as taken:
        taken.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        taken.bind(("127.0.0.1", port))
        taken.listen()
        with pytest.raises(Trouble):
            cluster.start(elsewhere=False)
    cluster.start(elsewhere=False)
    assert cluster.port == port
    assert cluster.sql("SELECT 1").strip() == "1"


def test_a_stale_pid_file_that_names_another_process_is_no_server(cluster):
    cluster.stop()
    (cluster.data / "postmaster.pid").write_text(f"{os.getpid()}\n")
    assert not cluster.running()
    cluster.start()
    assert cluster.running()
    assert count(cluster) == 100


def test_a_making_that_was_cut_short_leaves_nothing_half(house):
    cluster = Cluster(house)
    (house / "data.new").mkdir()
    (house / "data.new" / "half").write_text("")
    cluster.start()
    assert cluster.running()
    assert not (house / "data.new").exists()


def test_a_command_that_does_not_work_says_where_its_words_are(cluster):
    with pytest.raises(Trouble, match=r"commands\.log"):
        cluster.sql("SELECT nonsense")


def test_each_checkout_has_a_house_of_its_own(tmp_path, monkeypatch):
    monkeypatch.delenv("WEMBIT_HOME", raising=False)
    assert home(tmp_path / "a") != home(tmp_path / "b")
    assert home(tmp_path / "a") == home(tmp_path / "a")
    monkeypatch.setenv("WEMBIT_HOME", "/somewhere")
    assert str(home(tmp_path / "a")) == "/somewhere"
