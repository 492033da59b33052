"""Say in what kind of room the wool lies."""

from __future__ import annotations

from django.db import transaction

from wembit.core.stock.air import ROOMS
from wembit.web.errors import Refusal
from wembit.web.studio.models import MAKER, Member, Studio

ROOM = "room"  # among the studio's habits


@transaction.atomic
def keep_room(member: Member, room: str) -> Studio:
    """The room as a habit of the studio. Raises `Refusal` for a room that is none of `ROOMS`."""
    member.must_be(MAKER)
    if room not in ROOMS:
        raise Refusal("Choose one of the two.", "room")
    studio = Studio.objects.select_for_update().get(pk=member.studio_id)
    studio.habits = {**studio.habits, ROOM: room}
    studio.save(update_fields=["habits"])
    return studio
