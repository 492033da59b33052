"""Finish a making."""

from __future__ import annotations

from decimal import Decimal
from typing import TYPE_CHECKING
from uuid import UUID

from django.db import transaction

from wembit.web import clock
from wembit.web.bench.models import FITTED, Making, Piece
from wembit.web.bench.queries import making_of
from wembit.web.decimals import to_step
from wembit.web.errors import Refusal
from wembit.web.plan.actions.close_project import finish_project
from wembit.web.plan.actions.lower_needs import lower_needs
from wembit.web.studio.models import MAKER, Member

if TYPE_CHECKING:
    from django.core.files.base import ContentFile


@transaction.atomic
def finish_making(member: Member, making_id: UUID, *, photo: ContentFile | None = None) -> Making:
    """The figure is done: what it did not take is free again; the last one closes its project. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    line = making_of(member.studio, making_id)
    making = line.making
    if making.finished_at:
        raise Refusal("It is finished already.")
    making.finished_at = clock.now()
    if photo:
        making.photo = photo
    making.save(update_fields=["finished_at", "photo"])
    Piece.objects.filter(making=making).update(state=FITTED)
    left_over: dict[UUID, Decimal] = {}
    for piece in line.pieces:
        for layer in piece.layers:
            if layer.layer.need:
                spare = to_step(layer.grams.p50) - layer.taken
                left_over[layer.layer.need] = left_over.get(layer.layer.need, Decimal(0)) + spare
    lower_needs(member, left_over)
    project = making.project
    if project and not project.makings.filter(finished_at=None).exists() and project.makings.count() == project.count:
        finish_project(member, project.pk)
    return making
