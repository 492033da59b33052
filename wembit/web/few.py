"""The first few of what there is, and how many more there are."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

from django.db.models import QuerySet

T = TypeVar("T")
FEW = 8


@dataclass(frozen=True)
class Few(Generic[T]):
    """Rows to show, and the number of those left out."""

    rows: list[T]
    more: int

    def __iter__(self) -> Iterator[T]:
        return iter(self.rows)

    def __bool__(self) -> bool:
        return bool(self.rows)


def few(rows: Sequence[T] | QuerySet, count: int = FEW) -> Few[T]:
    """The first rows; of a query no more than these are read."""
    first = list(rows[:count])
    if len(first) < count:
        return Few(first, 0)
    return Few(first, max((rows.count() if isinstance(rows, QuerySet) else len(rows)) - count, 0))
