"""Wish for a letter a week, say yes to it, and stop it."""

from __future__ import annotations

import datetime as dt
import logging
from uuid import UUID

from django.db import transaction
from django.template.loader import render_to_string
from django.urls import reverse

from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.letters.mailing import NotSent, send
from wembit.web.letters.models import WEEKDAYS, Letter
from wembit.web.letters.tokens import token_of
from wembit.web.studio.models import Member

log = logging.getLogger(__name__)
PAUSE = dt.timedelta(minutes=10)  # between two mails that ask for the yes


@transaction.atomic
def wish_for_letter(member: Member, address: str, weekday: int, house: str) -> Letter:
    """A letter every such weekday (0: Monday) to that address; where it is new there, a mail that asks for the yes. `house`:
    where Wembit is reached. Raises `Refusal` where that mail does not go out, or one went just now.
    """
    list(Member.objects.filter(pk=member.pk).select_for_update())
    letter, now = Letter.objects.of(member.studio).filter(member=member).first(), clock.now()
    if letter and letter.agreed and letter.address == address:
        letter.weekday, letter.house = weekday, house
        letter.save(update_fields=["weekday", "house"])
        return letter
    if letter and now - letter.asked_at < PAUSE:
        raise Refusal("A mail was sent just now. Look into that inbox first, or wait for ten minutes.", "address")
    letter = letter or Letter(studio=member.studio, member=member)
    letter.address, letter.weekday, letter.house, letter.agreed = address, weekday, house, False
    letter.asked_at, letter.last_on = now, clock.today(member.studio)
    letter.save()
    link = house + reverse("agree", args=[token_of(letter)])
    text = render_to_string("letters/agree.txt", {"letter": letter, "studio": member.studio, "link": link})
    try:
        send(address, f"A letter a week from {member.studio.name}, on {WEEKDAYS[weekday]}s?", text.strip() + "\n")
    except NotSent as fault:
        log.warning("A mail that asks for a yes did not go out: %s", fault)
        raise Refusal("The mail did not go out. Look at the address, or ask who runs this house.", "address") from None
    return letter


@transaction.atomic
def agree(letter_id: UUID) -> None:
    """Whoever reads mail there says yes."""
    Letter.objects.filter(pk=letter_id).update(agreed=True)


@transaction.atomic
def stop_letter(member: Member) -> None:
    """No letter any more; when its last mail went is kept."""
    Letter.objects.of(member.studio).filter(member=member).update(address="", agreed=False)
