"""The processes of a served house, the memory they hold and the processor's time they took."""

from __future__ import annotations

import os
from pathlib import Path
from urllib.parse import urlsplit


def served_by(address: str) -> tuple[list[int], list[int]]:
    """Process ids of gunicorn and of PostgreSQL, each with all that it started."""
    words = _processes()
    port, database = urlsplit(address).port, urlsplit(os.environ["DATABASE_URL"]).port
    server = min(pid for pid, line in words.items() if "gunicorn" in line and f":{port}" in line)
    keeper = min(pid for pid, line in words.items() if "postgres -D" in line and f"port={database}" in line)
    return _family(server, words), _family(keeper, words)


def megabytes(pids: list[int]) -> float:
    """Proportional set size in MB: what is shared counts once."""
    lines = [line for pid in pids for line in _read(pid, "smaps_rollup").split("\n")]
    return sum(int(line.split()[1]) for line in lines if line.startswith("Pss:")) / 1024


def processor_ms(pids: list[int]) -> float:
    """Processor's time so far in ms, to 10 ms; what the host keeps for others is not in it."""
    ticks = 0
    for pid in pids:
        fields = _read(pid, "stat").rpartition(")")[2].split()
        ticks += sum(map(int, fields[11:13]))
    return ticks * 1000 / os.sysconf("SC_CLK_TCK")


def _processes() -> dict[int, str]:
    found = {}
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            found[int(folder.name)] = (folder / "cmdline").read_bytes().replace(b"\0", b" ").decode()
        except OSError:
            continue
    return found


def _family(root: int, processes: dict[int, str]) -> list[int]:
    found = [root]
    for pid in found:
        found += [child for child in processes if child not in found and _parent(child) == pid]
    return found


def _parent(pid: int) -> int:
    """Who started a process; 0 when it has ended meanwhile."""
    return int((_read(pid, "stat").rpartition(")")[2].split() or [0, 0])[1])


def _read(pid: int, name: str) -> str:
    """A file of a process; nothing when it has ended meanwhile."""
    try:
        return Path(f"/proc/{pid}/{name}").read_text()
    except OSError:
        return ""
