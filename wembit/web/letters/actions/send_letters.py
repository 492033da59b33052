"""Send the letters that are due."""

from __future__ import annotations

import logging
from uuid import UUID

from django.db import transaction

from wembit.web import clock
from wembit.web.letters.mailing import NotSent, send
from wembit.web.letters.models import Letter
from wembit.web.letters.queries import due_letters, is_due
from wembit.web.letters.weekly import written

log = logging.getLogger(__name__)


def send_letters() -> int:
    """Each due letter once, whoever else sends at the same time; how many went. One that does not go out is tried again the
    next time, and holds up no other, whatever is wrong with it.
    """
    return sum(_sent_or_told(pk) for pk in due_letters())


def _sent_or_told(pk: UUID) -> bool:
    try:
        return _sent(pk)
    except Exception:
        log.exception("A letter could not be written.")
        return False


@transaction.atomic
def _sent(pk: UUID) -> bool:
    rows = (
        Letter.objects.filter(pk=pk)
        .select_related("studio", "member")
        .select_for_update(of=("self",), skip_locked=True)
    )
    letter = rows.first()
    if letter is None or not is_due(letter):
        return False
    letter.last_on = clock.today(letter.studio)
    letter.save(update_fields=["last_on"])
    try:
        with transaction.atomic():
            told = written(letter.studio, letter.house)
            send(letter.address, told.subject, told.text)
    except NotSent as fault:
        log.warning("A letter did not go out: %s", fault)
        transaction.set_rollback(True)
        return False
    return True
