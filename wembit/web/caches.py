"""What a worker keeps: two stores of their own size in bytes, whatever number of studios it serves.

`until_pressed` keeps what a studio's pages show until its next press; `by_content` keeps what hangs on nothing but its
content (drawings, shares of skin). See docs/caches.md.
"""

from __future__ import annotations

import math
import pickle
import sys
import time
from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import lru_cache, wraps
from threading import Lock
from typing import Any, Protocol, TypeVar

SECONDS = 600.0
UNTIL_PRESSED_BYTES = 64_000_000
BY_CONTENT_BYTES = 96_000_000


class BoundedCache:
    """Text as it is, everything else pickled, so that no two threads ever hold the same object; the least used go first.

    `most_bytes` bounds the sum of what is kept, `seconds` how long; a value larger than a quarter of it is not kept. Safe
    for threads.
    """

    def __init__(self, most_bytes: int, seconds: float = math.inf) -> None:
        self.most_bytes, self.seconds = most_bytes, seconds
        self.bytes = 0
        self._rows: OrderedDict[Hashable, tuple[Hashable, float, str | bytes]] = OrderedDict()
        self._lock = Lock()

    def get_or_make(self, key: Hashable, stamp: Hashable, make: Callable[[], Any]) -> Any:
        """What is kept under the key with that stamp, else what `make()` gives, which takes its place."""
        with self._lock:
            row = self._rows.get(key)
            if row is not None and row[0] == stamp and time.monotonic() - row[1] < self.seconds:
                self._rows.move_to_end(key)
                return _open(row[2])
        made = make()
        packed = _pack(made)
        with self._lock:
            self._drop(key)
            if (size := sys.getsizeof(packed)) <= self.most_bytes // 4:
                self._rows[key] = (stamp, time.monotonic(), packed)
                self.bytes += size
            while self.bytes > self.most_bytes:
                self._drop(next(iter(self._rows)))
        return made

    def clear(self) -> None:
        """Forget everything."""
        with self._lock:
            self._rows.clear()
            self.bytes = 0

    def __len__(self) -> int:
        return len(self._rows)

    def _drop(self, key: Hashable) -> None:
        row = self._rows.pop(key, None)
        if row is not None:
            self.bytes -= sys.getsizeof(row[2])


def _pack(value: Any) -> str | bytes:
    return value if isinstance(value, str) else pickle.dumps(value, pickle.HIGHEST_PROTOCOL)


def _open(packed: str | bytes) -> Any:
    return packed if isinstance(packed, str) else pickle.loads(packed)


_trying: ContextVar[bool] = ContextVar("trying", default=False)


@contextmanager
def nothing_kept() -> Iterator[None]:
    """While something is only tried, nothing that hangs on the studio's stamp is looked up or kept."""
    token = _trying.set(True)
    try:
        yield
    finally:
        _trying.reset(token)


def is_trying() -> bool:
    """Whether something is only tried."""
    return _trying.get()


class Stamped(Hashable, Protocol):
    """What carries the stamp of its last press: a studio."""

    stamp: int


S = TypeVar("S", bound=Stamped)
T = TypeVar("T")


def kept_until_pressed(studios: int) -> Callable[[Callable[[S], T]], Callable[[S], T]]:
    """A function of a studio whose answer, which nobody changes, is kept as it is until that studio's next press; of so many
    studios. While something is only tried, it is neither looked up nor kept.
    """

    def keep(make: Callable[[S], T]) -> Callable[[S], T]:
        kept = lru_cache(maxsize=studios)(lambda studio, stamp: make(studio))
        _KEPT.append(kept.cache_clear)

        @wraps(make)
        def get(studio: S) -> T:
            return make(studio) if is_trying() else kept(studio, studio.stamp)

        return get

    return keep


_KEPT: list[Callable[[], None]] = []
until_pressed = BoundedCache(UNTIL_PRESSED_BYTES, SECONDS)
by_content = BoundedCache(BY_CONTENT_BYTES)


def forget_studios() -> None:
    """Whatever hangs on a studio's stamp goes."""
    until_pressed.clear()
    for forget in _KEPT:
        forget()
