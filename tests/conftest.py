"""What holds for all tests: a seed that is printed, the whole matrix only when it is asked for, no deadlines."""

from __future__ import annotations

import gc
import os
import random
import subprocess
from collections.abc import Sequence
from pathlib import Path
from typing import TypeVar

import pytest
from hypothesis import settings

T = TypeVar("T")
TOGETHER = ("tests/web/test_pages.py",)
MOST_CASES, OF = 1, "tests/web/"  # of one test there, where it says nothing else
ALL, SEED = "WEMBIT_TESTS", "WEMBIT_SEED"
HOUSE = Path(__file__).parents[1]

settings.register_profile("house", deadline=None, max_examples=100 if os.environ.get(ALL) == "all" else 15)
settings.load_profile("house")


def new_seed() -> int:
    """How many commits there are, so that each tries the next ones of a sample; any number where nobody knows."""

    def told(*words: str) -> str:
        return subprocess.run(["git", *words], cwd=HOUSE, capture_output=True, text=True, check=False).stdout.strip()

    try:
        if told("rev-parse", "--is-shallow-repository") == "false":
            return int(told("rev-list", "--count", "HEAD"))
    except (OSError, ValueError):
        pass
    return random.SystemRandom().randrange(10_000)


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config, log):
    """Every test by itself to whoever is free, but those of a file whose data is made once to one worker, first of all."""
    from xdist.scheduler import LoadScopeScheduling

    class OneByOne(LoadScopeScheduling):
        def _split_scope(self, nodeid):
            file = nodeid.partition("::")[0]
            return file if file in TOGETHER else nodeid

    return OneByOne(config, log)


def pytest_configure(config):
    if SEED not in os.environ:  # workers inherit it
        os.environ[SEED] = str(new_seed())
    config.addinivalue_line("markers", "whole: a long case that only ./test all runs")
    config.addinivalue_line(
        "markers", "sampled(group, count): so many of the group's, by the seed; ./test all runs them all"
    )


def pytest_collection_finish():
    """What is loaded by now stays: it is not looked through for rubbish, as in the server."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)


def pytest_report_header(config):
    return (
        f"seed {os.environ[SEED]} ({SEED}={os.environ[SEED]} ./test runs the same sample; ./test all runs everything)"
    )


def pytest_collection_modifyitems(config, items):
    if os.environ.get(ALL) == "all":
        return
    left_out = [item for item in items if item.get_closest_marker("whole")]
    groups: dict[tuple[str, int], list] = {}
    for item in items:
        if marker := item.get_closest_marker("sampled"):
            groups.setdefault(marker.args, []).append(item)
        elif hasattr(item, "callspec") and item.nodeid.startswith(OF):
            groups.setdefault((item.nodeid.partition("[")[0], MOST_CASES), []).append(item)
    for (group, count), those in groups.items():
        kept = {item.nodeid for item in some(those, count, group)}
        left_out += [item for item in those if item.nodeid not in kept]
    config.hook.pytest_deselected(items=left_out)
    names = {item.nodeid for item in left_out}
    items[:] = [item for item in items if item.nodeid not in names]


def some(values: Sequence[T], count: int, of: str) -> list[T]:
    """All values in ./test all, else so many of them: the next ones with each seed, so that none is passed over for long."""
    values = list(values)
    if os.environ.get(ALL) == "all" or len(values) <= count:
        return values
    random.Random(of).shuffle(values)
    first = int(os.environ[SEED]) * count
    return [values[(first + n) % len(values)] for n in range(count)]
