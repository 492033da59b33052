"""What two workers and the database hold in memory: proportional set size of gunicorn's and PostgreSQL's processes."""

from __future__ import annotations

import os
from pathlib import Path
from urllib.parse import urlsplit


def _processes() -> dict[int, str]:
    found = {}
    for folder in Path("/proc").glob("[0-9]*"):
        try:
            found[int(folder.name)] = (folder / "cmdline").read_bytes().replace(b"\0", b" ").decode()
        except OSError:
            continue
    return found


def _parent(pid: int) -> int:
    """Who started a process; 0 when it has ended meanwhile."""
    try:
        return int(Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[1])
    except OSError:
        return 0


def _family(root: int, processes: dict[int, str]) -> list[int]:
    """A process and all that it started."""
    found = [root]
    for pid in found:
        found += [child for child in processes if child not in found and _parent(child) == pid]
    return found


def _mb(pids: list[int]) -> float:
    total = 0
    for pid in pids:
        for line in Path(f"/proc/{pid}/smaps_rollup").read_text().split("\n"):
            if line.startswith("Pss:"):
                total += int(line.split()[1])
    return total / 1024


def rows(address: str) -> list[tuple[str, str]]:
    """Measured after the pages were asked for, so that the workers are warm."""
    processes = _processes()
    port, database = urlsplit(address).port, urlsplit(os.environ["DATABASE_URL"]).port
    server = min(pid for pid, words in processes.items() if "gunicorn" in words and f":{port}" in words)
    keeper = min(pid for pid, words in processes.items() if "postgres -D" in words and f"port={database}" in words)
    web, base = _mb(_family(server, processes)), _mb(_family(keeper, processes))
    return [
        ("memory", f"{web:6.0f} MB gunicorn with two workers  {base:6.0f} MB PostgreSQL  {web + base:6.0f} MB in all")
    ]
