"""A person chooses another password, or ends all her other sessions."""

from __future__ import annotations

from django.contrib.auth import authenticate
from django.db import transaction
from django.db.models import F
from django.http import HttpRequest

from wembit.web.errors import Refusal
from wembit.web.studio.models import User

from .follow_link import keep_password


def change_password(user: User, old: str, new: str, asked: HttpRequest) -> User:
    """Keep the new password; every session that began with the old one ends. Raises `Refusal`.

    A wrong old one counts like a wrong one at the door, and too many shut the door for a while.
    """
    if authenticate(asked, username=user.username, password=old) is None:  # outside the transaction: it is counted
        raise Refusal("That is not your password of today.", "old")
    if old == new:
        raise Refusal("Choose another one than today's.", "new")
    with transaction.atomic():
        user = User.objects.select_for_update().get(pk=user.pk)
        try:
            keep_password(user, new)
        except Refusal as weak:
            raise Refusal(weak.message, "new") from None
    return user


@transaction.atomic
def end_other_sessions(user: User) -> User:
    """Every session of hers ends; the one that asks is begun again by who calls this."""
    User.objects.filter(pk=user.pk).update(session_round=F("session_round") + 1)
    return User.objects.get(pk=user.pk)
