"""How many statements a connection keeps planned."""

from __future__ import annotations

from typing import Any

from django.db.backends.base.base import BaseDatabaseWrapper

MOST = 500  # the main pages alone ask more than a hundred again and again, with presses and trays several


def keep_planned(sender: Any, connection: BaseDatabaseWrapper, **_: Any) -> None:
    """A connection that was just opened keeps so many."""
    connection.connection.prepared_max = MOST
