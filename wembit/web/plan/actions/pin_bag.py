"""Keep wool of a bag for a project by hand, or let it go."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.http import Http404

from wembit.web.errors import Refusal
from wembit.web.plan.models import PLANNED, Pin
from wembit.web.plan.queries import project_of
from wembit.web.stash.models import Item
from wembit.web.stash.queries import lot_of
from wembit.web.studio.models import MAKER, Member

from .reserve import reserve


@transaction.atomic
def pin_bag(member: Member, project_id: UUID, lot_id: UUID, amount: Decimal, *, seen: bool) -> Pin:
    """So much of that bag stays with the project, whatever is due before it; promises follow. Raises `Refusal`, `Http404`."""
    member.must_be(MAKER)
    project, lot = project_of(member.studio, project_id), lot_of(member.studio, lot_id)
    if project.state != PLANNED:
        raise Refusal(f"{project.name} is closed; nothing is kept for it any more.", "lot")
    if not project.needs.filter(item=lot.item_id, seen=seen).exists():
        raise Refusal(f"{project.name} needs nothing of that bag. Choose another one.", "lot")
    Item.objects.filter(pk=lot.item_id).locked().get()
    lot.refresh_from_db()
    others = Pin.objects.filter(lot=lot).exclude(project=project, seen=seen)
    kept = sum((pin.amount for pin in others), Decimal(0))
    if amount <= 0 or amount > lot.on_hand - kept:
        raise Refusal(
            "There is not so much in that bag that is not kept for others. Choose less, or another bag.", "amount"
        )
    pin, _ = Pin.objects.update_or_create(
        project=project, lot=lot, seen=seen, defaults={"studio": member.studio, "amount": amount}
    )
    reserve(member.studio, [lot.item_id])
    return pin


@transaction.atomic
def let_go(member: Member, pin_id: UUID) -> UUID:
    """The bag is anybody's again; promises follow. Gives the project's id. Raises `Http404`."""
    member.must_be(MAKER)
    pin = Pin.objects.of(member.studio).filter(pk=pin_id).select_related("lot").first()
    if pin is None:
        raise Http404
    project, item = pin.project_id, pin.lot.item_id
    pin.delete()
    reserve(member.studio, [item])
    return project
