"""Letters as they are read."""

from __future__ import annotations

import datetime as dt
from typing import TYPE_CHECKING
from uuid import UUID

from wembit.web import clock

from .models import Letter

if TYPE_CHECKING:
    from wembit.web.studio.models import Member

FROM_HOUR = 7  # of the studio's own day
WEEK = 7


def letter_of(member: Member) -> Letter | None:
    """The letter of a member, if she wishes for one."""
    return Letter.objects.of(member.studio).filter(member=member).exclude(address="").first()


def is_due(letter: Letter) -> bool:
    """Whether its weekday has come since the last one, and the morning of it."""
    if not letter.agreed:
        return False
    now = clock.now().astimezone(clock.zone(letter.studio))
    today = now.date()
    since = today - dt.timedelta((today.weekday() - letter.weekday) % WEEK)
    return letter.last_on < since and (since < today or now.hour >= FROM_HOUR)


def due_letters() -> list[UUID]:
    """The ids of all letters, of whatever studio, that are to go now."""
    agreed = Letter.objects.filter(agreed=True).select_related("studio")
    return [letter.pk for letter in agreed if is_due(letter)]
