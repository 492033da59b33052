"""Makings in hand follow a stand-in, in the layers for which nothing was taken yet."""

from __future__ import annotations

from uuid import UUID

from django.db.models import F, QuerySet

from wembit.web.bench.models import PieceLayer
from wembit.web.plan.actions.needs import row_for
from wembit.web.plan.models import StandIn


def follow_stand_in(made: StandIn) -> None:
    """Within the caller's transaction; taken back, the layers return to the fibre that they were planned with."""
    if made.under:
        _lifted(made) if made.taken_back_at else _laid(made)
        return
    back = made.taken_back_at is not None
    old, new = (made.new_id, made.old_id) if back else (made.old_id, made.new_id)
    layers = _untouched(made).filter(item=old, seen=made.seen, instead_of=made.old_id if back else None)
    layers.update(
        item=new,
        instead_of=None if back else made.old_id,
        need=_need(made, new, made.seen),
        rule_g=F("rule_g") / made.ratio if back else F("rule_g") * made.ratio,
    )


def _untouched(made: StandIn) -> QuerySet[PieceLayer]:
    """The layers of the makings in hand that it is for, of which nothing was taken yet; taken back, of all that have it."""
    layers = PieceLayer.objects.filter(
        piece__making__project=made.project_id, piece__making__finished_at=None, takes=None
    )
    return layers if made.taken_back_at else layers.filter(piece__making__number__gt=made.project.count - made.count)


def _need(made: StandIn, item: UUID, seen: bool) -> UUID:
    need: UUID = row_for(made.project, item, seen).pk
    return need


def _laid(made: StandIn) -> None:
    """A thin layer before each cover, which gets thinner."""
    need = _need(made, made.new_id, seen=False)
    covers = _untouched(made).filter(item=made.old_id, seen=True, role="cover", instead_of=None)
    for cover in covers.order_by("-position"):  # the last first, so that the places of the others stay what they were
        PieceLayer.objects.filter(piece=cover.piece_id, position__gte=cover.position).update(position=F("position") + 1)
        layer = thin_layer(made, cover, need)
        layer.position = cover.position
        layer.save()
        PieceLayer.objects.filter(pk=cover.pk).update(rule_g=F("rule_g") * made.remains)


def _lifted(made: StandIn) -> None:
    for layer in _untouched(made).filter(item=made.new_id, seen=False, instead_of=made.old_id):
        cover = PieceLayer.objects.filter(
            piece=layer.piece_id, item=made.old_id, role="cover", position=layer.position + 1, takes=None
        )
        if cover.update(rule_g=F("rule_g") / made.remains):
            layer.delete()


def thin_layer(made: StandIn, cover: PieceLayer, need: UUID | None) -> PieceLayer:
    """The layer under a cover of the old fibre that still has its full weight; not stored."""
    return PieceLayer(
        studio=cover.studio, piece=cover.piece, item=made.new, instead_of=made.old, seen=False, need=need,
        role=cover.role, slot_name=f"under {cover.slot_name}"[:40],
        rule_g=cover.rule_g * (1 - made.remains) * made.ratio, bias=cover.bias, sigma=cover.sigma, position=cover.position,
        counts_for=cover.counts_for,
    )  # fmt: skip
