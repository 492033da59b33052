"""Print the table: each row what was measured and the figures. Walls of time on a shared machine are noisy; so is this."""

from __future__ import annotations

import gc
import sys
import time
from pathlib import Path

from tests.serving import demo_database, manage, new_database, served
from wembit.launch import gunicorn

from . import benches, colour, core, crowd, figures, growth, memory, pages, shelf, slider, studios, turning

SERVED = ("pages", "slider", "benches", "memory", "shelf", "growth", "crowd", "studios")


def stolen() -> tuple[int, int]:
    """Ticks of the processor: those that the host kept for others, and all."""
    ticks = [int(word) for word in Path("/proc/stat").read_text().split("\n")[0].split()[1:]]
    return ticks[7], sum(ticks[:8])


def show(rows) -> None:
    for name, found in rows:
        print(f"{name:40} {found}", flush=True)


def on_the_demo(parts: list[str]) -> None:
    """What needs a served studio, each on a copy of the demo or grown out of it."""
    demo = demo_database("benchmark_demo")
    if {"pages", "slider", "benches", "memory"} & set(parts):
        with served(demo) as address:
            if "pages" in parts:
                show(pages.rows(address, demo))
                show(pages.edits(address))
            if "slider" in parts:
                show(slider.rows(address))
            if "benches" in parts:
                show(benches.rows(address, demo))
            if "memory" in parts:
                show(memory.rows(address))
    if "shelf" in parts:
        show(shelf.rows(new_database("benchmark_shelf", like="benchmark_demo")))
    if "growth" in parts:
        show(growth.rows("benchmark_demo"))
    if "crowd" in parts:
        show(crowd.rows("benchmark_demo"))
    if "studios" in parts:
        database = new_database("benchmark_studios", like="benchmark_demo")
        manage(database, "flush", "--no-input", "--verbosity", "0")
        show(studios.rows(database))


def main(parts: list[str]) -> None:
    gunicorn.post_worker_init(None)  # rubbish is looked for as seldom as in the server
    gc.freeze()
    begun, (stolen_before, all_before) = time.monotonic(), stolen()
    for part, measured in (
        ("core", core.rows),
        ("colour", colour.rows),
        ("figures", figures.rows),
        ("turning", turning.rows),
    ):
        if part in parts:
            show(measured())
    if set(SERVED) & set(parts):
        on_the_demo(parts)
    stolen_after, all_after = stolen()
    share = (stolen_after - stolen_before) / max(all_after - all_before, 1)
    print(f"{time.monotonic() - begun:.0f} s in all; the host kept {share:.0%} of the processors' time for others")


if __name__ == "__main__":
    main(sys.argv[1:] or ["core", "colour", "figures", "pages", "slider", "benches", "memory", "shelf"])
