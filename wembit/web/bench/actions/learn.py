"""What the studio learns when a figure is finished: how much of the planned its hands take, and how far they scatter."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction

from wembit.core.learning.calibration import learnt
from wembit.web.bench.records import minutes_of, records
from wembit.web.errors import Refusal
from wembit.web.figures.actions.follow_weights import follow_weights
from wembit.web.figures.to_core.hands import ALL, MINUTES
from wembit.web.plan.actions.rewrite_needs import rewrite_needs
from wembit.web.plan.queries import projects
from wembit.web.studio.models import Studio

if TYPE_CHECKING:
    from wembit.web.bench.records import Record

Hands = dict[str, dict[str, list[float]]]
PLACES = 2  # to which a hand is believed: finer would change every room for nothing


def hands_of(found: list[Record], minutes: Iterable[tuple[UUID, float]] = ()) -> Hands:
    """Bias, sigma and number of records by maker (and all of them together) and by what they count for; `minutes`: of each
    part whose clock ran, its maker and what it took against the rule.
    """
    ratios: dict[str, dict[str, list[float]]] = {}
    told = [(record.maker, record.key, record.ratio) for record in found]
    for maker, key, ratio in [*told, *((maker, MINUTES, ratio) for maker, ratio in minutes)]:
        for who in (ALL, str(maker)):
            ratios.setdefault(who, {}).setdefault(key, []).append(ratio)
    return {
        who: {
            key: [round(hand.bias, PLACES), round(hand.sigma, PLACES), hand.n]
            for key, some in by_key.items()
            for hand in [learnt(some)]
        }
        for who, by_key in ratios.items()
    }


def learn(studio: Studio) -> bool:
    """The studio's hands as its finished makings show them; what is planned follows where they have changed. After the press
    that finished something, since figures are locked before wools. Says whether they have changed.
    """
    with transaction.atomic():
        kept = Studio.objects.select_for_update().get(
            pk=studio.pk
        )  # one after the other, each with all that is finished
        hands = hands_of(records(studio), minutes_of(studio))
        if kept.hands == hands:
            return False
        moved = _expected(kept.hands) != _expected(hands)
        kept.hands = hands
        kept.save(update_fields=["hands"])
    if moved:
        follow_weights(kept)
        for project in projects(kept):
            with suppress(Refusal):  # a figure that cannot be computed says so on its own page
                rewrite_needs(kept, project.pk)
    kept.pressed()
    return True


def _expected(hands: Hands) -> dict[str, list[float]]:
    """What the estimates of all rooms read of them."""
    return {key: known[:2] for key, known in hands.get(ALL, {}).items()}
