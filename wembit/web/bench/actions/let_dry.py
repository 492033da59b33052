"""Let the glue or clay of a step dry beside the work, and say that it is dry."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.web import clock
from wembit.web.bench.models import Drying
from wembit.web.bench.part_clock import lines_of
from wembit.web.bench.queries import making_in_hand
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def let_dry(member: Member, making_id: UUID, step_id: str) -> Drying:
    """A step of the making's order of work dries from now on, as long as it says; again from the start where it did before.

    Raises `Refusal` for a step that needs no drying, `Http404`.
    """
    member.must_be(MAKER)
    making = making_in_hand(member.studio, making_id)
    step = next((line.step for line in lines_of(making) if line.step.id == step_id and line.step.wait_hours), None)
    if step is None:
        raise Refusal("That step does not have to dry.", "drying")
    now = clock.now()
    fields = {
        "words": step.title[:160],
        "begun_at": now,
        "until": now + dt.timedelta(hours=step.wait_hours),
        "dry": False,
    }
    drying, _ = Drying.objects.update_or_create(
        making=making, step=step.id, defaults=fields, create_defaults={**fields, "studio": member.studio}
    )
    return drying


@transaction.atomic
def is_dry(member: Member, drying_id: UUID) -> Drying:
    """It is dry, whatever the clock says. Raises `Http404`."""
    member.must_be(MAKER)
    drying = get_object_or_404(Drying.objects.of(member.studio).select_related("making"), pk=drying_id)
    drying.dry = True
    drying.save(update_fields=["dry"])
    return drying
