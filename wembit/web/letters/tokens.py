"""The link by which whoever reads mail at an address says yes: signed, of one letter and one address, good for a week."""

from __future__ import annotations

import datetime as dt
from uuid import UUID

from django.core import signing

from .models import Letter

SALT, GOOD_FOR = "wembit.letters", dt.timedelta(days=7)


def token_of(letter: Letter) -> str:
    """For the link to a letter's yes."""
    return signing.dumps([str(letter.pk), letter.address], salt=SALT)


def letter_by(token: str) -> Letter | None:
    """The letter of that token, while its address is the same and the week is not over."""
    try:
        pk, address = signing.loads(token, salt=SALT, max_age=GOOD_FOR)
    except signing.BadSignature:
        return None
    return Letter.objects.filter(pk=UUID(pk), address=address).select_related("member__user", "studio").first()
