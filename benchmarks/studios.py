"""What one worker holds when ever more studios have looked at their pages: what is kept has an end."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

from tests.serving import CHECKOUT, environment

STEPS = (1, 10, 100, 300, 1_000)
PAGES = ("", "stash/", "colour/", "figures/", "plan/", "bench/", "restock/")


def rows(database: str) -> list[tuple[str, str]]:
    """In a process of its own: the pages of each studio once, in the handler that a worker runs."""
    found = subprocess.run(
        [sys.executable, "-m", "benchmarks.studios"],
        cwd=CHECKOUT,
        env=environment(database),
        check=True,
        text=True,
        stdout=subprocess.PIPE,
    )
    return [tuple(line.split("\t")) for line in found.stdout.splitlines()]


def resident() -> float:
    """Resident memory of this process in MB."""
    line = next(line for line in Path("/proc/self/status").read_text().splitlines() if line.startswith("VmRSS"))
    return int(line.split()[1]) / 1024


def main() -> None:
    """Three figures, twelve bags and a project a studio, every figure of another size."""
    import django

    django.setup()
    from django.test import Client

    from tests.web import factories as make
    from wembit.demo.figures import FIGURES
    from wembit.demo.loader import load_figure
    from wembit.web import caches
    from wembit.web.figures.models import Part

    for n in range(1, STEPS[-1] + 1):
        owner = make.studio_owner(f"Dune {n}", f"maker{n}")
        chosen = [FIGURES[(n + k) % len(FIGURES)] for k in range(3)]
        names = {fibre for figure in chosen for way in (figure.slots, *figure.ways.values()) for fibre in way.values()}
        items = {name: make.lot(owner, name, srgb=f"#{(n * 7 + at * 4099) % 0x1000000:06x}").item
                 for at, name in enumerate(sorted(names))}  # fmt: skip
        for figure in chosen:
            load_figure(owner.studio, figure, items)
        for part in Part.objects.filter(studio=owner.studio):
            part.shape = {key: grown(value, 1 + n / 4_000) if key.endswith("_mm") else value
                          for key, value in part.shape.items()}  # fmt: skip
            part.save(update_fields=["shape"])
        client = Client(SERVER_NAME="localhost")
        client.force_login(owner.user)
        for page in PAGES:
            answer = client.get(f"/s/{owner.studio.slug}/{page}")
            if answer.status_code != 200:
                raise RuntimeError(f"{page} answered {answer.status_code}")
        if n in STEPS:
            kept = f"{caches.until_pressed.bytes / 1e6:5.1f} + {caches.by_content.bytes / 1e6:5.1f} MB kept"
            print(f"a worker after {n} studios\t{resident():6.0f} MB resident  {kept}", flush=True)


def grown(value, factor: float):
    """A length or a list of them, larger."""
    if isinstance(value, list):
        return [grown(each, factor) for each in value]
    return round(value * factor, 4) if isinstance(value, int | float) else value


if __name__ == "__main__":
    main()
