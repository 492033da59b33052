"""The futures of items, kept by what they hang on: a press changes those of an item or two."""

from __future__ import annotations

import datetime as dt
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import replace
from threading import Lock

from wembit.core.stock.forecast import Fibre, Future, futures

MOST_KEPT = 4_000  # some 3 kB each
HORIZON_DAYS = 180
SERVICE = 0.9  # of running short no more than one time in ten; the pages say “nine times in ten”

_kept: OrderedDict[tuple, Future] = OrderedDict()
_lock = Lock()


def futures_of(today: dt.date, fibres: Sequence[Fibre], service: float = SERVICE) -> list[Future]:
    """The future of each, whoever sells it: worked out together where they are not known yet. Nothing of them can be
    changed.
    """
    keys = [(today, service, _plain(fibre)) for fibre in fibres]
    with _lock:
        known = {key: _kept[key] for key in keys if key in _kept}
        for key in known:
            _kept.move_to_end(key)
    new = list(dict.fromkeys(key for key in keys if key not in known))
    if new:
        by_key = dict(zip(keys, fibres, strict=True))
        bare = [replace(by_key[key], lead_days=0.0, lead_sd_days=0.0, packs=()) for key in new]
        known |= zip(new, futures(today, bare, service=service, horizon_days=HORIZON_DAYS), strict=True)
        with _lock:
            _kept.update({key: known[key] for key in new})
            while len(_kept) > MOST_KEPT:
                _kept.popitem(last=False)
    return [known[key] for key in keys]


def _plain(fibre: Fibre) -> tuple:
    """All that a future hangs on."""
    dated = [tuple((each.date, each.grams, each.sigma) for each in some) for some in (fibre.demands, fibre.receipts)]
    return fibre.on_hand, *dated, fibre.habit, fibre.cover_days
