"""A page is of one moment: what it reads in many questions is as it was at the first of them."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from django.db import connection, transaction
from psycopg import IsolationLevel


@contextmanager
def one_moment() -> Iterator[None]:
    """Whatever others press meanwhile, all that is read within is of the same state; within a transaction that is open
    already, of its own. Raises `OperationalError` where something would be changed that others have changed since: patience.py
    asks for such a page once more.
    """
    if connection.in_atomic_block:
        yield
        return
    connection.ensure_connection()
    real = connection.connection
    real.isolation_level = IsolationLevel.REPEATABLE_READ  # from its next transaction on
    try:
        with transaction.atomic():
            yield
    finally:
        if not real.closed:
            real.isolation_level = None
