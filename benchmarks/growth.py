"""What costs more as a studio grows: a large one's pages against an empty page, and the exponent of each kind of growth."""

from __future__ import annotations

import math
import re
import zlib
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, fields, replace

import psycopg

from tests.serving import Visitor, new_database, served

from .big import BIG, MIDDLE, Size, grow
from .pages import ID, addresses
from .processes import megabytes, processor_ms, served_by

EMPTY = "understood/?name=nothing"  # a page of the studio with nothing on it
MORE = ["strip/", "deeds/", "stash/walk/", "stash/stocktake/", "stash/delivery/", "plan/new/", "find/?words=moss"]
AGAIN, AFTER, EMPTIES, PRESSES = 20, 10, 25, 1_000
MARK = re.compile(rb"<(?:path|circle|rect|line|polygon|polyline|ellipse|use|g|svg|text|tspan|image)[ >/]")
Row = tuple[str, str]


@dataclass(frozen=True)
class Cost:
    """A page's work in ms (gunicorn and PostgreSQL together), shown again and straight after a press, that of an empty page
    measured just before and just after it (E), since the machine's pace changes, and its size.
    """

    again: float
    after: float
    empty: float
    kilobytes: float
    marks: int


class Studio:
    """A served studio, looked at by one visitor."""

    def __init__(self, address: str, connection: psycopg.Connection):
        self.visitor, self.connection, self.address = Visitor(address), connection, address

    def get(self, page: str) -> bytes:
        """Raises when the page does not answer 200."""
        status, body = self.visitor.get(f"/s/saltgrass/{page}")
        if status != 200:
            raise RuntimeError(f"{page} answered {status}")
        return body

    def press(self) -> None:
        """All that a press changes for what is kept."""
        self.connection.execute("UPDATE studio_studio SET stamp = stamp + 1")

    def work(self, rounds: int, do: Callable[[], object]) -> float:
        """Processor's ms of one round."""
        pids = [pid for family in served_by(self.address) for pid in family]
        before = processor_ms(pids)
        for _ in range(rounds):
            do()
        return (processor_ms(pids) - before) / rounds

    def cost(self, page: str) -> Cost:
        """What a page takes."""
        body = self.get(page)
        empty = self.work(EMPTIES, lambda: self.get(EMPTY))
        again = self.work(AGAIN, lambda: self.get(page))
        after = self.work(AFTER, lambda: (self.press(), self.get(page)))
        empty = (empty + self.work(EMPTIES, lambda: self.get(EMPTY))) / 2
        return Cost(again, after, empty, len(zlib.compress(body)) / 1000, len(MARK.findall(body)))

    def pages(self) -> list[str]:
        """The main pages, one thing's page of each list, a figure's colours."""
        found = addresses(self.visitor, "/s/saltgrass/")
        figure = next(page for page in found if page.startswith("figures/") and page != "figures/")
        return [*found, f"{figure}colours/", *MORE]


@contextmanager
def studio(database: str) -> Iterator[Studio]:
    """The studio of that database, served."""
    with served(database) as address, psycopg.connect(database, autocommit=True) as connection:
        yield Studio(address, connection)


def rows(like: str) -> Iterator[Row]:
    """From a database with the demo: the large studio page by page, its worker's memory, then each kind doubled."""
    middle = new_database("benchmark_middle", like=like)
    grow(middle, MIDDLE)
    large = new_database("benchmark_big", like="benchmark_middle")
    grow(large, BIG)
    with studio(large) as found:
        yield from _pages(found)
        yield from _memory(found)
    yield from _exponents(middle)


def _pages(found: Studio) -> Iterator[Row]:
    for page in found.pages():
        cost = found.cost(page)
        again, after = (f"{ms:6.1f} ms {ms / cost.empty:5.1f} E" for ms in (cost.again, cost.after))
        size = f"{cost.kilobytes:4.0f} kB {cost.marks:5} marks"
        yield _name(page), f"E {cost.empty:4.1f} ms   again {again}   after a press {after}   {size}"


def _memory(found: Studio) -> Iterator[Row]:
    pages = found.pages()
    for number in range(PRESSES):
        found.press()
        found.get(pages[number % len(pages)])
    workers = served_by(found.address)[0][1:]
    each = ", ".join(f"{megabytes([pid]):.0f}" for pid in workers)
    yield f"workers after {PRESSES} presses, each with a page", f"{each} MB"


def _exponents(middle: str) -> Iterator[Row]:
    """The power with which the dearest pages grow when one kind is doubled: 1 is in proportion, 0 not at all."""
    with studio(middle) as found:
        pages = found.pages()
        before = {page: found.cost(page) for page in pages}
    for kind in fields(Size):
        twice = replace(MIDDLE, **{kind.name: 2 * getattr(MIDDLE, kind.name)})
        database = new_database("benchmark_twice", like="benchmark_middle")
        grow(database, twice)
        with studio(database) as found:
            powers = {page: _power(before[page], found.cost(page)) for page in pages}
        steepest = sorted(powers, key=lambda page: -powers[page])[:3]
        yield f"twice the {kind.name}", ", ".join(f"{_name(page)} {powers[page]:.2f}" for page in steepest)


def _power(one: Cost, two: Cost) -> float:
    return max(math.log2(two.again / one.again), math.log2(two.after / one.after))


def _name(page: str) -> str:
    return re.sub(ID, "…", page) or "today"
