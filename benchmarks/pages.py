"""Each main page of a studio at the server, through gunicorn on loopback: one visitor, warm and straight after a press."""

from __future__ import annotations

import re
import time

import psycopg

from tests.serving import Visitor

from .processes import processor_ms, served_by

PAGES = "|stash/|stash/?form=tops|colour/|figures/|plan/|bench/|restock/|restock/suppliers/|house/".split("|")
ID = "[0-9a-f-]{36}"
THINGS = {
    "stash/": "stash/lot/",
    "figures/": "figures/",
    "plan/": "plan/",
    "bench/": "bench/",
    "restock/": "restock/item/",
}
ROUNDS, WARM_UP = 60, 3


def addresses(visitor: Visitor, base: str) -> list[str]:
    """The main pages, and of each list its first thing's page."""
    found = list(PAGES)
    for page, thing in THINGS.items():
        _, body = visitor.get(base + page)
        first = re.search(f"{base}({thing}{ID}/)", body.decode())
        if first:
            found.append(first.group(1))
    return found


def timed(visitor: Visitor, path: str, before=lambda: None, rounds: int = ROUNDS) -> tuple[float, float, int]:
    """Median and p95 in ms, and the size in bytes. Raises when the page does not answer 200."""
    times = []
    for _ in range(rounds + WARM_UP):
        before()
        begun = time.perf_counter()
        status, body = visitor.get(path)
        times.append((time.perf_counter() - begun) * 1000)
        if status != 200:
            raise RuntimeError(f"{path} answered {status}")
    times = sorted(times[WARM_UP:])
    return times[len(times) // 2], times[int(len(times) * 0.95)], len(body)


def rows(address: str, database: str, slug: str = "saltgrass") -> list[tuple[str, str]]:
    """One row a page. A press is stood in for by the studio's stamp, which is all that a press changes for what is kept."""
    visitor = Visitor(address)
    base = f"/s/{slug}/"
    found = []
    with psycopg.connect(database, autocommit=True) as connection:

        def press():
            connection.execute("UPDATE studio_studio SET stamp = stamp + 1 WHERE slug = %s", [slug])

        for page in addresses(visitor, base):
            pids = [pid for family in served_by(address) for pid in family]
            before = processor_ms(pids)
            middle, slow, size = timed(visitor, base + page)
            worked = (processor_ms(pids) - before) / (ROUNDS + WARM_UP)
            fresh, fresh_slow, _ = timed(visitor, base + page, press, rounds=20)
            name = re.sub(ID, "…", page) or "today"
            warm = f"{middle:6.1f} / {slow:6.1f} ms, {worked:5.1f} ms of work"
            found.append(
                (f"page {name}", f"{warm}   after a press {fresh:6.1f} / {fresh_slow:6.1f} ms   {size / 1000:5.0f} kB")
            )
    return found


def edits(address: str, slug: str = "saltgrass") -> list[tuple[str, str]]:
    """A size changed on the screen, back and forth, in each figure's first part: the answer carries grams and drawing."""
    visitor = Visitor(address)
    base = f"/s/{slug}/figures/"
    _, page = visitor.get(base)
    found = []
    for figure, name in re.findall(rf'href="{base}({ID})/".*?<b>([^<]+)</b>', page.decode(), re.S):
        key = "body" if "part=body" in visitor.get(f"{base}{figure}/")[1].decode() else ""
        key = key or re.search(r"\?part=([\w-]+)", visitor.get(f"{base}{figure}/")[1].decode())[1]
        shown = re.search(
            r'name="(\w+_mm)"[^>]*?\svalue="([\d.]+)"', visitor.get(f"{base}{figure}/?part={key}")[1].decode()
        )
        times = []
        for step in range(24):
            value = float(shown[2]) + step % 12 * 0.25
            begun = time.perf_counter()
            status, _ = visitor.post(f"{base}{figure}/part/{key}/", {shown[1]: f"{value:.2f}"})
            times.append((time.perf_counter() - begun) * 1000)
            if status != 200:
                raise RuntimeError(f"{name} answered {status}")
        times = sorted(times[2:])
        found.append((f"edit of {name}", f"{times[len(times) // 2]:6.1f} / {times[int(len(times) * 0.95)]:6.1f} ms"))
    return found
