"""Colours: curves, the nearest, and the best blends of a shelf, on one core with the palette loaded."""

from __future__ import annotations

import resource
import statistics
import time

import numpy as np

from wembit.core.colour.conversions import ratios, xyz_rows_to_lab
from wembit.core.colour.matching import nearest
from wembit.core.colour.mixing_lots import MixingLots
from wembit.core.colour.search.blending import blends

TARGETS = 24
WAYS = ((2, 8), (3, 8), (4, 8), (3, 16))


def shelf(lots: int, seed: int) -> MixingLots:
    """Colours from grey to full, most of them scarce."""
    chance = np.random.default_rng(seed)
    rows = []
    for n in range(lots):
        pure = chance.integers(0, 256, 3)
        mixed = pure.mean() + (pure - pure.mean()) * chance.uniform()
        grams = float(chance.uniform(0, 60)) if chance.random() < 0.8 else None
        rows.append({"id": f"{n:05}", "srgb": "#{:02x}{:02x}{:02x}".format(*mixed.astype(int)), "grams": grams})
    return MixingLots.of(rows)


def work(do) -> tuple[float, float]:
    """Median and p95 of the processor's ms over the targets."""
    chance, times = np.random.default_rng(5), []
    for _ in range(TARGETS):
        target = ratios(f"#{chance.integers(0, 0xFFFFFF):06x}")
        begun = time.process_time()
        do(target)
        times.append((time.process_time() - begun) * 1000)
    return statistics.median(times), sorted(times)[int(len(times) * 0.95)]


def rows() -> list[tuple[str, str]]:
    found = []
    for lots in (60, 500, 2000):
        begun = time.process_time()
        palette = shelf(lots, lots)
        load = (time.process_time() - begun) * 1000
        near = work(lambda target, p=palette: nearest(xyz_rows_to_lab(np.array(target)), p.ids, p.labs))
        figures = [f"curves {load:5.0f} ms", f"nearest {near[0]:4.1f} ms"]
        for fibres, parts in WAYS:
            middle, slow = work(lambda t, p=palette, f=fibres, n=parts: blends(t, p, 6.0, max_fibres=f, parts=n))
            figures.append(f"{fibres} of {parts}: {middle:4.0f} / {slow:4.0f} ms")
        found.append((f"blends of {lots} lots", "  ".join(figures)))
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    found.append(("memory of the process, at most", f"{memory:.0f} MB"))
    return found
