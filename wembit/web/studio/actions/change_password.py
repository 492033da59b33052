"""A person chooses another password, or ends all her other sessions."""

from __future__ import annotations

from django.db import transaction
from django.db.models import F

from wembit.web.errors import Refusal
from wembit.web.studio.models import User

from .follow_link import keep_password


@transaction.atomic
def change_password(user: User, old: str, new: str) -> User:
    """Keep the new password; every session that began with the old one ends. Raises `Refusal`."""
    user = User.objects.select_for_update().get(pk=user.pk)
    if not user.check_password(old):
        raise Refusal("That is not your password of today.", "old")
    if old == new:
        raise Refusal("Choose another one than today's.", "new")
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
