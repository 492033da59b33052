"""How much of the machine the house takes."""

import pytest

from wembit.launch.machine import Machine, memory_mb, this_machine

MEMINFO = "MemFree: 100 kB\nMemTotal:       16384000 kB\n"


@pytest.mark.parametrize(
    ("cores", "memory", "workers", "buffers", "connections"),
    [(1, 400, 2, 64, 60), (2, 4_000, 2, 500, 60), (4, 8_000, 4, 1_000, 60), (32, 64_000, 8, 1_024, 68)],
)
def test_workers_and_the_databases_memory_follow_the_machine(cores, memory, workers, buffers, connections):
    machine = Machine(cores, memory)
    assert (machine.workers, machine.shared_buffers_mb, machine.connections) == (workers, buffers, connections)


def test_a_containers_limit_counts(tmp_path):
    limit, none = tmp_path / "max", tmp_path / "none"
    limit.write_text(f"{2**30}\n")
    none.write_text("max\n")
    assert memory_mb(MEMINFO) == 16_000
    assert memory_mb(MEMINFO, [none, tmp_path / "missing"]) == 16_000
    assert memory_mb(MEMINFO, [limit]) == 1_024


def test_this_machine_has_cores_and_memory():
    machine = this_machine()
    assert machine.cores >= 1
    assert machine.memory_mb > 256
