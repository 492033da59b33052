"""Note by a new line of the ledger what an old one was taken for."""

from __future__ import annotations

from collections.abc import Mapping
from uuid import UUID

from wembit.web.bench.models import Take, ThingTake
from wembit.web.errors import Refusal
from wembit.web.stash.models import Movement

FINISHED = "That making is finished by now. Take the wool on the shelf."


def take_again(instead: Mapping[UUID, Movement]) -> None:
    """For each old line that was taken for a layer or a thing, the new one is; within the caller's transaction.

    Raises `Refusal` where the making is finished by now.
    """
    for take in Take.objects.filter(movement__in=instead).select_related("layer__piece__making"):
        if take.layer.piece.making.finished_at:
            raise Refusal(FINISHED)
        Take.objects.create(
            studio=take.studio, movement=instead[take.movement_id], layer=take.layer, measured=take.measured,
            given_up=take.given_up, aside=take.aside,
        )  # fmt: skip
    for thing_take in ThingTake.objects.filter(movement__in=instead).select_related("thing__making"):
        if thing_take.thing.making.finished_at:
            raise Refusal(FINISHED)
        ThingTake.objects.create(
            studio=thing_take.studio, movement=instead[thing_take.movement_id], thing=thing_take.thing
        )
