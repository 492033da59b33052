"""What finished makings took against what was planned, part by part: what was weighed, not what was booked as planned."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from statistics import fmean
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.craft.materials import A_PINCH_BELOW_G
from wembit.core.grams.estimate import Range
from wembit.web.stash.models import ZERO

from .queries import booked_layers, finished_makings, layers_of, loose_parts, taken_by_layer

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

    from .models import PieceLayer

LAST = 200  # makings that are looked at
FEWEST_LOOSE = 3  # parts from which something is said


@dataclass(frozen=True)
class Record:
    """One layer of a part, all its pieces together: what the rule said, in g, the range as it was when it was begun, what it
    took; `key`: the firmness or role that it counts for.
    """

    making: UUID
    maker: UUID
    finished_at: dt.datetime
    figure: str
    part_key: str
    part: str
    slot: str
    item: UUID
    key: str
    rule_g: float
    grams: Range
    taken: Decimal

    @property
    def ratio(self) -> float:
        return float(self.taken) / self.rule_g

    @property
    def held(self) -> bool:
        """Whether it lay in the range of eight in ten."""
        return self.grams.p10 <= float(self.taken) <= self.grams.p90


def records(studio: Studio, making_ids: Sequence[UUID] | None = None) -> list[Record]:
    """Of the last finished makings, or of some: the oldest first. What a scale does not show is left out, and what nobody
    weighed. Four queries.
    """
    newest = {making.pk: making for making in finished_makings(studio, LAST, making_ids)}
    taken, booked = taken_by_layer(list(newest)), booked_layers(list(newest))
    groups: dict[tuple, list[PieceLayer]] = {}
    for layer in layers_of(list(newest)):
        groups.setdefault((layer.piece.making_id, layer.piece.part_key, layer.position), []).append(layer)
    found = []
    for (making_id, part_key, _), group in groups.items():
        grams = sum((taken.get(layer.pk, ZERO) for layer in group), ZERO)
        rule = sum(layer.rule_g for layer in group)
        if grams <= 0 or rule < A_PINCH_BELOW_G or any(layer.pk in booked or layer.pk not in taken for layer in group):
            continue
        making, first = newest[making_id], group[0]
        found.append(Record(
            making=making_id, maker=making.maker_id, finished_at=making.finished_at or making.begun_at,
            figure=making.colourway.version.figure.name, part_key=part_key, part=_part_name(group), slot=first.slot_name,
            item=first.item_id, key=first.counts_for or first.role, rule_g=rule,
            grams=Range.of(rule * first.bias, first.sigma), taken=grams,
        ))  # fmt: skip
    return sorted(found, key=lambda record: record.finished_at)


def minutes_of(studio: Studio) -> list[tuple[UUID, float]]:
    """The maker of each part of the last finished makings whose clock ran, and what it took against the rule, the oldest
    first.
    """
    makings = finished_makings(studio, LAST)[::-1]
    return [(making.maker_id, took / planned) for making in makings for planned, took in making.took.values()]


def loose_costs(studio: Studio) -> tuple[float, int] | None:
    """How many times as long parts took that were rolled loosely at first as the others, and of how many that is known; None
    where there are too few of either.
    """
    makings = finished_makings(studio, LAST)
    loose = loose_parts([making.pk for making in makings])
    logs: dict[bool, list[float]] = {True: [], False: []}
    for making in makings:
        for key, (planned, took) in making.took.items():
            logs[(making.pk, key) in loose].append(math.log(took / planned))
    if min(map(len, logs.values())) < FEWEST_LOOSE:
        return None
    return math.exp(fmean(logs[True]) - fmean(logs[False])), len(logs[True])


def _part_name(group: Sequence[PieceLayer]) -> str:
    """The name of the pieces together, without their number."""
    name = group[0].piece.name
    return name.rsplit(" ", 1)[0] if len(group) > 1 else name
