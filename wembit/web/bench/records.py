"""What finished makings took against what was planned, part by part: what was weighed, not what was booked as planned."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.core.craft.materials import A_PINCH_BELOW_G
from wembit.core.grams.estimate import Range
from wembit.web.figures.to_core.hands import key_of
from wembit.web.stash.models import ZERO

from .models import Making, PieceLayer
from .queries import kept_takes, taken_by_layer

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

LAST = 200  # makings that are looked at


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
    makings = Making.objects.of(studio).exclude(finished_at=None).order_by("-finished_at")
    if making_ids is not None:
        makings = makings.filter(pk__in=making_ids)
    newest = {making.pk: making for making in makings.select_related("colourway__version__figure")[:LAST]}
    taken = taken_by_layer(list(newest))
    booked = set(
        kept_takes().filter(layer__piece__making__in=list(newest), measured=False).values_list("layer", flat=True)
    )
    groups: dict[tuple, list[PieceLayer]] = {}
    layers = PieceLayer.objects.filter(piece__making__in=list(newest)).select_related("piece")
    for layer in layers.order_by("piece__position", "position"):
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
            item=first.item_id, key=key_of(first.role, first.firmness), rule_g=rule,
            grams=Range.of(rule * first.bias, first.sigma), taken=grams,
        ))  # fmt: skip
    return sorted(found, key=lambda record: record.finished_at)


def _part_name(group: Sequence[PieceLayer]) -> str:
    """The name of the pieces together, without their number."""
    name = group[0].piece.name
    return name.rsplit(" ", 1)[0] if len(group) > 1 else name
