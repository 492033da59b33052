"""What holds for all tests: a seed that is printed, the whole matrix only when it is asked for, no deadlines."""

from __future__ import annotations

import os
import random
from collections.abc import Sequence
from typing import TypeVar

from hypothesis import settings

T = TypeVar("T")
ALL, SEED = "WEMBIT_TESTS", "WEMBIT_SEED"

settings.register_profile("house", deadline=None)
settings.load_profile("house")


def pytest_configure(config):
    os.environ.setdefault(SEED, str(random.SystemRandom().randrange(10_000)))  # workers inherit it
    config.addinivalue_line("markers", "whole: a long case that only ./test all runs")


def pytest_report_header(config):
    return (
        f"seed {os.environ[SEED]} ({SEED}={os.environ[SEED]} ./test runs the same sample; ./test all runs everything)"
    )


def pytest_collection_modifyitems(config, items):
    if os.environ.get(ALL) == "all":
        return
    whole = [item for item in items if item.get_closest_marker("whole")]
    config.hook.pytest_deselected(items=whole)
    items[:] = [item for item in items if item not in whole]


def some(values: Sequence[T], count: int, of: str) -> list[T]:
    """All values in ./test all, else so many of them, the same for a seed and a name."""
    values = list(values)
    if os.environ.get(ALL) == "all" or len(values) <= count:
        return values
    return random.Random(f"{os.environ[SEED]}/{of}").sample(values, count)
