"""The house in one file and back: all of it or nothing, read by its owner alone."""

import os
import stat
import tarfile

import psycopg
import pytest

from tests.launch.conftest import a_house
from wembit.launch import backups
from wembit.launch.backups import backup, restore
from wembit.launch.cluster import Cluster, Trouble


@pytest.fixture(scope="module")
def server():
    """One cluster for all tests of this file."""
    with a_house() as folder:
        cluster = Cluster(folder)
        cluster.start()
        yield cluster


@pytest.fixture
def lived_in(server, tmp_path, monkeypatch):
    """A cluster with a studio, two entries, sessions, and two pictures."""
    cluster = server
    with psycopg.connect(cluster.url, autocommit=True) as connection:
        for table, rows in (("studio_studio", 1), ("stash_entry", 2), ("django_session", 3)):
            connection.execute(f"DROP TABLE IF EXISTS {table}")
            connection.execute(f"CREATE TABLE {table} AS SELECT generate_series(1, {rows}) AS id")
    media = tmp_path / "media"
    (media / "s1").mkdir(parents=True)
    for name in ("otter.jpg", "heron.jpg"):
        (media / "s1" / name).write_bytes(name.encode())
    monkeypatch.setenv("DATABASE_URL", cluster.url)
    monkeypatch.setenv("WEMBIT_MEDIA", str(media))
    return cluster, media


def count(cluster, table):
    with psycopg.connect(cluster.url) as connection:
        return connection.execute(f"SELECT count(*) FROM {table}").fetchone()[0]


def run(cluster, statement):
    with psycopg.connect(cluster.url, autocommit=True) as connection:
        connection.execute(statement)


def files(folder):
    return sorted(str(path.relative_to(folder)) for path in folder.rglob("*") if path.is_file())


def test_what_was_kept_comes_back_exactly_and_no_one_stays_signed_in(lived_in, tmp_path):
    cluster, media = lived_in
    kept = tmp_path / "the house, of today.tar"
    about = backup(kept)
    assert (about.studios, about.entries, about.pictures) == (1, 2, 2)
    assert stat.S_IMODE(kept.stat().st_mode) == 0o600
    assert files(tmp_path) == ["media/s1/heron.jpg", "media/s1/otter.jpg", kept.name], "nothing is left beside it"

    run(cluster, "INSERT INTO stash_entry SELECT generate_series(3, 9)")
    (media / "s1" / "otter.jpg").unlink()
    (media / "s1" / "later.jpg").write_bytes(b"taken after the backup")
    about = restore(kept)
    assert (about.studios, about.entries, about.pictures) == (1, 2, 2) and about.made_at
    assert count(cluster, "stash_entry") == 2
    assert count(cluster, "django_session") == 0, "sessions are not kept"
    assert files(media) == ["s1/heron.jpg", "s1/otter.jpg"], "the pictures are those of the backup"
    assert files(tmp_path) == ["media/s1/heron.jpg", "media/s1/otter.jpg", kept.name]


def test_a_backup_replaces_an_older_one_only_when_it_is_whole(lived_in, tmp_path, monkeypatch):
    kept = tmp_path / "house.tar"
    backup(kept)
    before = kept.read_bytes()

    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(backups, "_write", full)
    with pytest.raises(Trouble, match="No space left"):
        backup(kept)
    assert kept.read_bytes() == before
    assert files(tmp_path) == ["house.tar", "media/s1/heron.jpg", "media/s1/otter.jpg"]


@pytest.mark.parametrize("broken", ["cut short", "another file", "not there", "a stranger's", "no dump in it"])
def test_what_is_no_whole_backup_changes_nothing(lived_in, tmp_path, broken):
    cluster, media = lived_in
    kept = tmp_path / "house.tar"
    backup(kept)
    whole = kept.read_bytes()
    if broken == "cut short":
        kept.write_bytes(whole[: len(whole) // 2])
    elif broken == "another file":
        kept.write_text("no archive")
    elif broken == "not there":
        kept.unlink()
    else:
        with tarfile.open(kept, "w") as archive:
            if broken == "a stranger's":
                (tmp_path / "x.dump").write_text("no dump")
                archive.add(tmp_path / "x.dump", "x.dump")
                archive.add(tmp_path / "x.dump", "../outside.dump")
                (tmp_path / "x.dump").unlink()
            else:
                archive.add(media, "media")
    run(cluster, "INSERT INTO stash_entry VALUES (3)")
    with pytest.raises(Trouble):
        restore(kept)
    assert count(cluster, "stash_entry") == 3
    assert files(media) == ["s1/heron.jpg", "s1/otter.jpg"]
    assert not list(tmp_path.glob(".restore-*"))
    assert not (tmp_path.parent / "outside.dump").exists()


def test_a_dump_that_cannot_be_read_changes_neither_database_nor_pictures(lived_in, tmp_path):
    cluster, media = lived_in
    kept = tmp_path / "house.tar"
    (tmp_path / "wembit.dump").write_text("not a dump")
    with tarfile.open(kept, "w") as archive:
        archive.add(tmp_path / "wembit.dump", "wembit.dump")
        archive.add(media, "media")
    (tmp_path / "wembit.dump").unlink()
    with pytest.raises(Trouble, match="pg_restore did not work"):
        restore(kept)
    assert count(cluster, "stash_entry") == 2 and len(files(media)) == 2


def test_a_backup_of_an_earlier_version_is_taken(lived_in, tmp_path):
    cluster, _media = lived_in
    kept, old = tmp_path / "new.tar", tmp_path / "old.tar"
    backup(kept)
    with tarfile.open(kept) as archive:
        archive.extractall(tmp_path / "x", filter="data")
    with tarfile.open(old, "w") as archive:
        archive.add(tmp_path / "x" / "wembit.dump", "house.tar.dump")
        archive.add(tmp_path / "x" / "media", "media")
    run(cluster, "DELETE FROM stash_entry")
    assert restore(old).entries == 2
    assert count(cluster, "stash_entry") == 2


def test_the_password_does_not_stand_among_the_words_of_a_command(lived_in, tmp_path, monkeypatch):
    cluster, _ = lived_in
    password = (cluster.folder / "password").read_text().strip()
    seen, ran = [], backups.subprocess.run

    def watched(command, **more):
        seen.append((command, more["env"].get("PGPASSFILE")))
        assert stat.S_IMODE(os.stat(more["env"]["PGPASSFILE"]).st_mode) == 0o600
        return ran(command, **more)

    with monkeypatch.context() as patched:
        patched.setattr(backups.subprocess, "run", watched)
        backup(tmp_path / "house.tar")
        restore(tmp_path / "house.tar")
    assert len(seen) >= 4
    assert not [command for command, _ in seen if any(password in word for word in command)]
    assert not [path for _, path in seen if os.path.exists(path)], "gone when the command is done"
