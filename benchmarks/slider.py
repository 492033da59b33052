"""A slider of "a new figure" at the server, sizes never seen before: drawn at once; what it takes when the hand rests."""

from __future__ import annotations

import time

from tests.serving import Visitor

PLANS = ("standing", "newt", "spider", "person")
STEPS = 14


def pace() -> float:
    """Seconds that ten million additions take: how quick the machine is just now."""
    begun = time.perf_counter()
    sum(range(10**7))
    return time.perf_counter() - begun


def rows(address: str, slug: str = "saltgrass") -> list[tuple[str, str]]:
    """Median and slowest in ms of each plan, drawn and worked, with the machine's pace."""
    visitor = Visitor(address)
    found = []
    for plan in PLANS:
        base = f"/s/{slug}/figures/new/{plan}/"
        visitor.get(base)
        for target in ("drawn", "worked"):
            times, before = [], pace()
            for step in range(STEPS):
                size = 120 + 7.3 * step + (0.4 if target == "worked" else 0)
                begun = time.perf_counter()
                status, _ = visitor.get(f"{base}?size={size:.1f}&body={step % 5 - 2}", target)
                times.append((time.perf_counter() - begun) * 1000)
                if status != 200:
                    raise RuntimeError(f"{plan} answered {status}")
            times = sorted(times[2:])
            found.append(
                (
                    f"slider of {plan}, {target}",
                    f"{times[len(times) // 2]:6.1f} / {times[-1]:6.1f} ms, pace {before:.2f}–{pace():.2f} s",
                )
            )
    return found
