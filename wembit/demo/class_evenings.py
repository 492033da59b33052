"""The class on Thursday evenings: what its guests take from the shelf, which nobody has planned."""

from __future__ import annotations

import datetime as dt
import random
from collections.abc import Iterator
from decimal import Decimal
from typing import TYPE_CHECKING

from wembit.web import clock
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.ledger import Press

if TYPE_CHECKING:
    from wembit.web.stash.models import Item
    from wembit.web.studio.models import Member

CORE, COATS = "grey core", ["cockle", "gull", "sandpiper", "storm"]
FIRST_AGO, THURSDAY, HOUR = 126, 3, 19
CORE_G, COAT_G = (4.2, 0.8), (1.3, 0.4)  # a guest takes, with the standard deviation from guest to guest
AWAY = 0.12  # of the Thursdays there is no class


def teach(maker: Member, items: dict[str, Item], today: dt.date) -> None:
    """Every Thursday until yesterday some guests come, and a creature in two coats is made on a grey core."""
    for day, taken in _evenings(today):
        with clock.as_of(clock.at(maker.studio, day, HOUR)):
            for name, grams in taken.items():
                lot = items[name].lots.order_by("-on_hand")[0]
                pull(maker, lot.pk, grams, press=Press(f"demo-class-{name}-{day}"))


def _evenings(today: dt.date) -> Iterator[tuple[dt.date, dict[str, Decimal]]]:
    chance = random.Random(3)
    first = today - dt.timedelta(FIRST_AGO)
    day = first + dt.timedelta((THURSDAY - first.weekday()) % 7)
    while day < today:
        guests = 3 + sum(chance.random() < 0.5 for _ in range(5))
        grams = {CORE: _all(chance, guests, *CORE_G)}
        grams |= {coat: _all(chance, guests, *COAT_G) for coat in chance.sample(COATS, 2)}
        if chance.random() >= AWAY:
            yield day, grams
        day += dt.timedelta(7)


def _all(chance: random.Random, guests: int, mean: float, sd: float) -> Decimal:
    return Decimal(str(round(sum(max(0.2, chance.gauss(mean, sd)) for _ in range(guests)), 2)))
