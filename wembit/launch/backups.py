"""The house in one file and back: the database as PostgreSQL dumps it, and the pictures.

A backup is a tar archive of `wembit.dump` (custom format, without the sessions of those signed in), `media/` and
`about.json` (when, how many studios, entries and pictures). Only its owner may read it. A restore reads the archive to its
end, and the dump's list of contents, before it touches anything.
"""

from __future__ import annotations

import contextlib
import datetime as dt
import io
import json
import os
import subprocess
import tarfile
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path, PurePosixPath
from urllib.parse import unquote, urlsplit, urlunsplit

from .cluster import Trouble, binaries

DUMP, MEDIA, ABOUT = "wembit.dump", "media", "about.json"
SESSIONS = "django_session"
COUNTED = {"studios": "studio_studio", "entries": "stash_entry"}


@dataclass(frozen=True)
class About:
    """What a backup holds; `made_at` is empty in one of an earlier version, which did not say."""

    made_at: str
    studios: int
    entries: int
    pictures: int

    def __str__(self) -> str:
        when = f"of {self.made_at[:16].replace('T', ' ')}: " if self.made_at else ""
        return f"{when}{self.studios} studio(s), {self.entries} entries of the ledger, {self.pictures} picture(s)"


def backup(path: Path) -> About:
    """Write database and pictures to one file that only its owner reads; a file of that name is replaced when all is in it.

    Raises `Trouble`.
    """
    media = Path(os.environ["WEMBIT_MEDIA"])
    try:
        with tempfile.TemporaryDirectory(dir=path.parent, prefix=".wembit-backup-") as folder:
            dump, new = Path(folder) / DUMP, Path(folder) / "new.tar"
            _postgres("pg_dump", "-Fc", "--no-owner", f"--exclude-table-data={SESSIONS}", "-f", str(dump))
            about = About(dt.datetime.now(dt.UTC).isoformat(timespec="seconds"), *_counts(), _pictures(media))
            os.close(os.open(new, os.O_CREAT | os.O_EXCL, 0o600))
            with tarfile.open(new, "w") as archive:
                _write(archive, ABOUT, json.dumps(about.__dict__).encode())
                archive.add(dump, DUMP)
                archive.add(media, MEDIA)
            os.replace(new, path)
            with contextlib.suppress(Trouble):  # a database of an earlier version has no place for it
                _postgres("psql", "-q", "-c", "UPDATE studio_studio SET backed_up_at = now()")
    except OSError as fault:
        raise Trouble(f"{path} cannot be written: {fault.strerror}.") from None
    return about


def restore(path: Path) -> About:
    """Put back what `backup` has written: the whole database and exactly its pictures, or nothing. Raises `Trouble`."""
    media = Path(os.environ["WEMBIT_MEDIA"])
    with tempfile.TemporaryDirectory(dir=media.parent, prefix=".restore-") as folder:
        dump = _unpacked(path, Path(folder))
        _postgres("pg_restore", "--list", str(dump), database=False, quiet=True)
        _postgres("pg_restore", "--clean", "--if-exists", "--no-owner", "--single-transaction", str(dump))
        pictures = next((each for each in Path(folder).iterdir() if each.is_dir()), Path(folder) / MEDIA)
        pictures.mkdir(exist_ok=True)
        old = Path(folder) / "replaced"
        os.rename(media, old)
        os.rename(pictures, media)
    made_at = ""
    with contextlib.suppress(OSError, KeyError, ValueError), tarfile.open(path) as archive:
        about = archive.extractfile(ABOUT)
        made_at = json.load(about)["made_at"] if about else ""
    return About(made_at, *_counts(), _pictures(media))


def _unpacked(path: Path, folder: Path) -> Path:
    """The dump of an archive that was read to its end and holds nothing but a dump and pictures. Raises `Trouble`."""
    strange = Trouble(f"{path} was not written by ./start --backup.")
    try:
        with tarfile.open(path) as archive:
            members = archive.getmembers()
            dumps = [
                member
                for member in members
                if member.isfile() and member.name.endswith(".dump") and "/" not in member.name
            ]
            others = [member for member in members if member not in dumps and member.name != ABOUT]
            tops = {PurePosixPath(other.name).parts[0] for other in others}  # the folder of the pictures
            if len(dumps) != 1 or len(tops) > 1 or not all(member.isfile() or member.isdir() for member in members):
                raise strange
            archive.extractall(folder, members=members, filter="data")
    except tarfile.ReadError as fault:
        cut = "unexpected end of data" in str(fault)
        raise (Trouble(f"{path} breaks off: it is no whole backup. Nothing was changed.") if cut else strange) from None
    except (tarfile.TarError, EOFError):
        raise strange from None
    except OSError as fault:
        raise Trouble(f"{path} cannot be read: {fault.strerror or fault}.") from None
    return folder / dumps[0].name


def _write(archive: tarfile.TarFile, name: str, content: bytes) -> None:
    member = tarfile.TarInfo(name)
    member.size, member.mode = len(content), 0o600
    archive.addfile(member, io.BytesIO(content))


def _pictures(media: Path) -> int:
    return sum(1 for path in media.rglob("*") if path.is_file())


def _counts() -> tuple[int, int]:
    """How many studios and entries the database holds."""
    asked = ", ".join(f"(SELECT count(*) FROM {table})" for table in COUNTED.values())
    told = _postgres("psql", "-AtF", " ", "-c", f"SELECT {asked}")
    studios, entries = told.split()
    return int(studios), int(entries)


def _postgres(program: str, *words: str, database: bool = True, quiet: bool = False) -> str:
    """What a program of PostgreSQL's said; its own message is shown where it fails. Raises `Trouble`.

    The password goes by a file that only its owner reads: the words of a command stand in the list of processes.
    """
    with _without_password(os.environ["DATABASE_URL"]) as (address, environment):
        command = [str(binaries() / program), *(("-d", address) if database else ()), *words]
        done = subprocess.run(command, env=environment, stdout=subprocess.PIPE, text=True, check=False)
    if done.returncode:
        raise Trouble(f"{program} did not work; its message stands above. Nothing was changed.")
    return "" if quiet else done.stdout


@contextlib.contextmanager
def _without_password(url: str) -> Iterator[tuple[str, dict[str, str]]]:
    """The address of a database without its password, and the environment that tells it."""
    parts = urlsplit(url)
    host = parts.hostname or ""
    place = f"{parts.username}@{host}" if parts.username else host
    place += f":{parts.port}" if parts.port else ""
    with tempfile.NamedTemporaryFile("w", prefix="wembit-pgpass-") as file:  # made 0600
        password = unquote(parts.password or "").replace("\\", "\\\\").replace(":", "\\:")
        file.write(f"*:*:*:*:{password}\n")
        file.flush()
        environment = {**os.environ, "PGPASSFILE": file.name} if password else dict(os.environ)
        yield urlunsplit(parts._replace(netloc=place)), environment
