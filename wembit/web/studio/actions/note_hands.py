"""Note whose hands a session holds, so that a person's devices are found without reading those of others."""

from __future__ import annotations

from collections.abc import Iterable

from django.contrib.sessions.models import Session

from wembit.web.studio.models import HeldIn, User


def note_hands(session_key: str, user: User, hands: Iterable[str]) -> None:
    """The session holds the hands of these people (ids), `user`'s among them; those of hers that have ended are forgotten."""
    user.held_in.exclude(session_key__in=Session.objects.values("session_key")).delete()
    held = [HeldIn(user=other, session_key=session_key) for other in User.objects.filter(pk__in=list(hands))]
    HeldIn.objects.bulk_create(held, ignore_conflicts=True)
