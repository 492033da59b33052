"""Twenty benches, each with its page open, logging at once, some presses sent twice, as a shaky line would: what is lost or
doubled, and the wait; with what hands need between two pulls, and without a pause, where all stand in one queue.
"""

from __future__ import annotations

import random
import re
import threading
import time
import uuid

import psycopg

from tests.serving import Visitor

BENCHES = 20
TWICE = 0.25  # of the presses arrive a second time
PACES = {"a pull in 10 s each": (6, 10.0), "without a pause": (6, 0.0)}  # pulls a bench, seconds between two
ID = "[0-9a-f-]{36}"


def rows(address: str, database: str, slug: str = "saltgrass") -> list[tuple[str, str]]:
    """p50 and p95 of a pull in ms with twenty at once, and how many entries there are for the presses."""
    base = f"/s/{slug}/"
    first = Visitor(address)
    home = first.get(base + "bench/")[1].decode()
    makings = list(dict.fromkeys(re.findall(rf"{base}bench/({ID})/\"", home)))
    forms = [form for making in makings if (form := _form(first, f"{base}bench/{making}/"))]
    return [_at_a_pace(address, database, forms, words, *pace) for words, pace in PACES.items()]


def _at_a_pace(
    address: str, database: str, forms: list[tuple[str, str, str]], words: str, pulls: int, pause: float
) -> tuple[str, str]:
    times: list[float] = []
    faults: list[int] = []
    keys = [[str(uuid.uuid4()) for _ in range(pulls)] for _ in range(BENCHES)]

    def work(number: int) -> None:
        visitor, (page, action, lot) = Visitor(address), forms[number % len(forms)]
        visitor.get(page)
        chance = random.Random(number)
        for key in keys[number]:
            for _ in range(2 if chance.random() < TWICE else 1):
                time.sleep(pause * chance.uniform(0.5, 1.5))
                visitor.connection.close()  # the server has let go of one that was quiet
                begun = time.perf_counter()
                status, _ = visitor.post(action, {"key": key, "lot": lot, "amount": "0.001", "anyway": "1"})
                times.append((time.perf_counter() - begun) * 1000)
                if status != 200:
                    faults.append(status)

    threads = [threading.Thread(target=work, args=[number]) for number in range(BENCHES)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    with psycopg.connect(database) as connection:
        flat = [key for some in keys for key in some]
        written = connection.execute("SELECT count(*) FROM stash_entry WHERE client_key = ANY(%s)", [flat]).fetchone()
    times.sort()
    middle, slow = times[len(times) // 2], times[int(len(times) * 0.95)]
    told = f"{written[0] if written else 0} entries for {BENCHES * pulls} presses, some sent twice; faults {faults or 'none'}"
    return f"{BENCHES} benches, {words}", f"{middle:6.1f} / {slow:6.1f} ms; {told}"


def _form(visitor: Visitor, page: str) -> tuple[str, str, str] | None:
    """The page, where its piece in hand takes wool, and from which bag; None of what is finished."""
    text = visitor.get(page)[1].decode()
    action = re.search(rf'action="([^"]+/bench/layer/{ID}/take/)"', text)
    lot = re.search(rf'name="lot"[^>]*?value="({ID})"', text) or re.search(rf'name="lot".*?value="({ID})"', text, re.S)
    return (page, action[1], lot[1]) if action and lot else None
