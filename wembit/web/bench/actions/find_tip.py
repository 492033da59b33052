"""The tip of a broken needle was found."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web.bench.models import NeedleBreak
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def find_tip(member: Member, break_id: UUID) -> NeedleBreak:
    """It is not in the figure any more, in hand or finished. Raises `Http404`."""
    member.must_be(MAKER)
    broken = get_object_or_404(NeedleBreak.objects.of(member.studio).select_related("piece"), pk=break_id)
    broken.tip_found = True
    broken.save(update_fields=["tip_found"])
    return broken
