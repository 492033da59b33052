"""Say what became of a finished piece: it is in stock, it was given, it was sold."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.bench.models import GONE, Making
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def send_off(member: Member, making_id: UUID, how: str, whom: str = "") -> Making:
    """How it went, empty for in stock; to whom, today. Raises `Refusal` for one in hand, `Http404`."""
    member.must_be(MAKER)
    making = get_object_or_404(Making.objects.of(member.studio).locked(), pk=making_id)
    if making.finished_at is None:
        raise Refusal("It is still in hand. Finish it first.", "how")
    if how not in GONE:
        raise Refusal("Choose what became of it.", "how")
    making.gone, making.whom = how, whom if how else ""
    making.gone_on = clock.today(member.studio) if how else None
    making.save(update_fields=["gone", "whom", "gone_on"])
    return making
