"""Fixtures that are made once for the tests of a file, in a transaction of their own around those tests.

`@shared` stands where `@pytest.fixture` would. Its rows stay until a test comes that does not ask for it, so that no test
finds more than it asked for; tests that ask for the same come one after the other. What a test changes is rolled back, and
of what the fixture gave it gets a copy. For tests that need committed rows (`transaction=True`) it is no use.
"""

from __future__ import annotations

import copy
from collections.abc import Callable, Generator
from dataclasses import dataclass
from functools import partial
from typing import Any

import pytest
from django.db import transaction
from django.test import Client


def shared(build: Callable) -> Any:
    build.shared = True  # type: ignore[attr-defined]
    return pytest.fixture(scope="module")(build)


@dataclass
class Made:
    """One shared fixture whose rows are there, and how to be rid of them."""

    fixture: pytest.FixtureDef
    finish: Callable[[], None]
    rows: transaction.Atomic
    value: Any  # as it was when it was made; None for what is not copied


_THERE: list[Made] = []  # each within the one before


def is_shared(fixture: pytest.FixtureDef) -> bool:
    return hasattr(fixture.func, "shared")


@pytest.hookimpl(wrapper=True)
def pytest_fixture_setup(
    fixturedef: pytest.FixtureDef, request: pytest.FixtureRequest
) -> Generator[None, object, object]:
    """What a shared fixture writes is written within a savepoint, which goes with it."""
    if not is_shared(fixturedef):
        return (yield)
    request.getfixturevalue("django_db_setup")
    blocker = request.getfixturevalue("django_db_blocker")
    rows = transaction.atomic()
    with blocker.unblock():
        rows.__enter__()
        fixturedef.addfinalizer(partial(_roll_back, fixturedef, blocker))
        _THERE.append(Made(fixturedef, partial(fixturedef.finish, request), rows, None))
        value = yield
    _THERE[-1].value = None if isinstance(value, Client) else copy.deepcopy(value)
    return value


def _roll_back(fixture: pytest.FixtureDef, blocker: Any) -> None:
    while fixture in [made.fixture for made in _THERE]:
        made = _THERE.pop()
        with blocker.unblock():
            transaction.set_rollback(True)
            made.rows.__exit__(None, None, None)
        if made.fixture is not fixture:
            made.finish()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_teardown(item: pytest.Item, nextitem: pytest.Item | None) -> Generator[None, None, None]:
    """What the next test does not ask for goes, and what lies within it; of the others it gets copies."""
    yield
    asked = set(shared_of(nextitem))
    kept = next((n for n, made in enumerate(_THERE) if made.fixture not in asked), len(_THERE))
    for made in reversed(_THERE[kept:]):
        made.finish()
    for made, value in zip(_THERE, copy.deepcopy([made.value for made in _THERE]), strict=True):
        if value is not None:
            assert made.fixture.cached_result is not None
            made.fixture.cached_result = (value, *made.fixture.cached_result[1:])


def shared_of(item: pytest.Item | None) -> list[pytest.FixtureDef]:
    """The shared fixtures that a test asks for, in the order in which they are written."""
    fixtures = [those[-1] for those in item._fixtureinfo.name2fixturedefs.values()] if item is not None else []
    return sorted(filter(is_shared, fixtures), key=lambda it: (it.baseid.count("/"), it.func.__code__.co_firstlineno))


def put_in_order(items: list[pytest.Item]) -> None:
    """Tests of a file that ask for the same come together, and each with a database to roll back."""
    files = {path: n for n, path in enumerate(dict.fromkeys(item.path for item in items))}
    asked = {item: [fixture.argname for fixture in shared_of(item)] for item in items}
    items.sort(key=lambda item: (files[item.path], asked[item]))
    for item in items:
        if asked[item]:
            item.add_marker(pytest.mark.django_db)
