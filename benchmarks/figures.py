"""Drawing a figure of 40 parts, and an edit of one of its parts through gunicorn on loopback."""

from __future__ import annotations

import itertools
import statistics
import time
from dataclasses import replace

from wembit.core.contract.requests import SHAPE
from wembit.core.drawing.surface import under
from wembit.core.drawing.views import Dress, _look, grounded, view
from wembit.core.pose.placing import PlacedPart, Seat, place
from wembit.core.pose.skin import visible_shares
from wembit.core.shape import solids

from .core import SHAPES

ROUNDS = 15


def parts(count: int) -> list[PlacedPart]:
    """A body with parts all over it; every third is a pair, every fourth sits on the part before it."""
    found = []
    for n in range(count):
        shape = solids.solid(SHAPE(SHAPES[n % len(SHAPES)] if n else {**SHAPES[0], "length_mm": 140}, "shape"))
        seat = {"on": None, "centre_mm": 60}
        if n:
            on = f"p{n - 1}" if n % 4 == 0 else "p0"
            seat = {"on": on, "t": (n * 37 % 90 + 5) / 100, "angle": n * 53 % 180, "pitch": n * 29 % 80 - 40, "sink": 3}
        found.append(PlacedPart(f"p{n}", 2 if n and n % 3 == 0 else 1, shape, Seat.of(seat)))
    return found


def timed(do) -> str:
    times = []
    for _ in range(ROUNDS):
        begun = time.process_time()
        do()
        times.append((time.process_time() - begun) * 1000)
    return f"{statistics.median(times):6.1f} ms of work, {min(times):6.1f} ms at best"


def turned(each: list[PlacedPart], by: float) -> list[PlacedPart]:
    """The parts with the last one tilted."""
    last = each[-1]
    return [*each[:-1], replace(last, seat=replace(last.seat, pitch=last.seat.pitch + by))]


def rows() -> list[tuple[str, str]]:
    found = []
    for count in (10, 20, 40):
        each = parts(count)
        dresses = {p.name: Dress("#b08a5e", (under("#f1ede3", 0.3),) if n % 3 == 0 else ()) for n, p in enumerate(each)}
        step = itertools.count()

        def drawn(each=each, dresses=dresses, step=step):
            pieces = grounded(place(turned(each, next(step))))
            return [view(pieces, dresses, which) for which in ("side", "front")]

        def anew(drawn=drawn):
            _look.cache_clear()
            drawn()

        found.append((f"drawing of {count} parts, side and front", timed(anew)))
        found.append((f"the same, one part turned, {count} parts", timed(drawn)))
        found.append((f"what joins hide, {count} parts", timed(lambda each=each: visible_shares(place(each)))))
    return found
