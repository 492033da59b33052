"""Makings in hand follow a stand-in, in the layers for which nothing was taken yet."""

from __future__ import annotations

from django.db.models import F

from wembit.web.bench.models import PieceLayer
from wembit.web.plan.models import Need, StandIn


def follow_stand_in(made: StandIn) -> None:
    """Within the caller's transaction; taken back, the layers return to the fibre that they were planned with."""
    back = made.taken_back_at is not None
    old, new = (made.new_id, made.old_id) if back else (made.old_id, made.new_id)
    layers = PieceLayer.objects.filter(
        piece__making__project=made.project_id,
        piece__making__finished_at=None,
        piece__making__number__gt=made.project.count - made.count,
        item=old,
        seen=made.seen,
        takes=None,
    )
    layers = layers.filter(instead_of=made.old_id) if back else layers.filter(instead_of=None)
    need = Need.objects.filter(project=made.project_id, item=new, seen=made.seen).values_list("pk", flat=True).first()
    layers.update(
        item=new,
        instead_of=None if back else made.old_id,
        need=need,
        rule_g=F("rule_g") / made.ratio if back else F("rule_g") * made.ratio,
    )
