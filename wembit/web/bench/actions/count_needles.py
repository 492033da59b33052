"""Say how many needles, pins and skewers are out for a making."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from wembit.web.bench.models import Making
from wembit.web.bench.queries import making_in_hand
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member

MOST_NEEDLES = 40


@transaction.atomic
def count_needles(member: Member, making_id: UUID, out: int) -> Making:
    """So many are out from now on, 0 to 40. Raises `Refusal` when the making is finished, `Http404`."""
    member.must_be(MAKER)
    making = making_in_hand(member.studio, making_id)
    if not 0 <= out <= MOST_NEEDLES:
        raise Refusal(f"Count between none and {MOST_NEEDLES}.", "out")
    making.needles_out = out
    making.save(update_fields=["needles_out"])
    return making
