"""Say that a layer of a piece has enough: what was planned beyond is free again; or that it takes the rest after all."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction

from wembit.web.bench.models import PieceLayer
from wembit.web.bench.queries import layer_line, layer_of, taken_by_layer
from wembit.web.errors import Refusal
from wembit.web.plan.actions.needs import write_needs
from wembit.web.plan.actions.reserve import reserve
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def has_enough(member: Member, layer_id: UUID) -> Decimal:
    """Free what the plan still holds for this layer, in g. Raises `Refusal` where that is nothing, `Http404`."""
    layer = _open(member, layer_id)
    spare = layer_line(layer, taken_by_layer([layer.piece.making_id]), {}).spare
    if spare <= 0:
        raise Refusal("Nothing more is planned for it.", "amount")
    return _free(member, layer, spare)


@transaction.atomic
def takes_more(member: Member, layer_id: UUID) -> Decimal:
    """Plan again what was freed of this layer, in g. Raises `Refusal` where nothing was, `Http404`."""
    layer = _open(member, layer_id)
    if not layer.freed:
        raise Refusal("All of it is planned already.", "amount")
    return -_free(member, layer, -layer.freed)


def _open(member: Member, layer_id: UUID) -> PieceLayer:
    member.must_be(MAKER)
    layer = layer_of(member.studio, layer_id)
    if layer.piece.making.finished_at:
        raise Refusal("That making is finished.", "amount")
    return layer


def _free(member: Member, layer: PieceLayer, grams: Decimal) -> Decimal:
    layer.freed += grams
    layer.save(update_fields=["freed"])
    if layer.need and layer.piece.making.project:
        reserve(member.studio, write_needs(layer.piece.making.project))
    return grams
