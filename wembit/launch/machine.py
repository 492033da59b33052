"""What of the machine the house may use: a worker a core, and an eighth of the memory for the database's own pages."""

from __future__ import annotations

import os
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

LIMITS = ("/sys/fs/cgroup/memory.max", "/sys/fs/cgroup/memory/memory.limit_in_bytes")  # of a container, in bytes


@dataclass(frozen=True)
class Machine:
    """Cores that may be used, and memory in MB."""

    cores: int
    memory_mb: int

    @property
    def workers(self) -> int:
        """Processes that serve pages: two at the least, so that one long page does not stop the house."""
        return min(max(self.cores, 2), 8)

    @property
    def shared_buffers_mb(self) -> int:
        """Of an eighth of the memory no less than 64 MB and no more than 1 GB; the rest serves as the system's cache."""
        return min(max(self.memory_mb // 8, 64), 1_024)

    @property
    def connections(self) -> int:
        """Six for each worker's pool, and some for backups and commands beside it."""
        return max(60, 6 * self.workers + 20)


def this_machine() -> Machine:
    """Read anew at each start."""
    return Machine(len(os.sched_getaffinity(0)), memory_mb(Path("/proc/meminfo").read_text(), map(Path, LIMITS)))


def memory_mb(meminfo: str, limits: Iterable[Path] = ()) -> int:
    """The machine's memory in MB, or what its container may have of it. `meminfo` as in /proc/meminfo."""
    most = next(int(line.split()[1]) // 1024 for line in meminfo.splitlines() if line.startswith("MemTotal:"))
    for path in limits:
        try:
            most = min(most, int(path.read_text()) // 2**20)
        except (OSError, ValueError):  # no container, or one without a limit
            continue
    return most
