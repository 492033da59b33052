"""Where a person is signed in: the sessions that hold her hand, and how one of them ends."""

from __future__ import annotations

import datetime as dt
import hashlib
from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.contrib.auth import SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore
from django.contrib.sessions.models import Session
from django.utils.crypto import constant_time_compare

from wembit.web import clock

from .shared_tablet import HANDS, SINCE, WITH

if TYPE_CHECKING:
    from django.http import HttpRequest

    from .models import User

SEEN = (("Firefox", "Firefox"), ("Edg/", "Edge"), ("Chrome", "Chrome"), ("Safari", "Safari"))
ON = (("Android", "Android"), ("iPhone", "iPhone"), ("iPad", "iPad"), ("Windows", "Windows"), ("Mac OS", "Mac"),
      ("Linux", "Linux"))  # fmt: skip


@dataclass(frozen=True)
class SignedIn:
    """A device: its mark, with what, since when, and whether it is the one that asks."""

    mark: str
    words: str
    since: dt.datetime | None
    here: bool


def signed_in_at(request: HttpRequest, user: User) -> list[SignedIn]:
    """All devices on which this person's password still holds, this one first, then the latest."""
    devices = []
    for session, data in _holding(user):
        since = data.get(SINCE, {}).get(str(user.pk), "")
        devices.append(
            SignedIn(
                _mark(session.session_key),
                _words(data.get(WITH, "")),
                dt.datetime.fromisoformat(since) if since else None,
                session.session_key == request.session.session_key,
            )
        )
    return sorted(devices, key=lambda device: (not device.here, -(device.since or clock.EARLIEST).timestamp()))


def sign_out_at(user: User, mark: str) -> bool:
    """Take her hand off that device; where she was the one who signed in on it, its session ends. Whether there was one."""
    for session, data in _holding(user):
        if not constant_time_compare(_mark(session.session_key), mark):
            continue
        if data.get(SESSION_KEY) == str(user.pk):
            session.delete()
        else:  # another's tablet, on which she has signed in as second hand
            store = SessionStore(session_key=session.session_key)
            store[HANDS] = {pk: held for pk, held in store[HANDS].items() if pk != str(user.pk)}
            store.save()
        return True
    return False


def _holding(user: User) -> Iterator[tuple[Session, dict]]:
    held = user.get_session_auth_hash()
    keys = user.held_in.values("session_key")
    for session in Session.objects.filter(session_key__in=keys, expire_date__gt=clock.now()):
        data = session.get_decoded()
        if constant_time_compare(str(data.get(HANDS, {}).get(str(user.pk), "")), held):
            yield session, data


def _mark(key: str) -> str:
    """What tells a session from others without letting anybody in."""
    return hashlib.sha256(f"device:{key}".encode()).hexdigest()[:24]


def _words(agent: str) -> str:
    browser = next((words for part, words in SEEN if part in agent), "a browser")
    place = next((words for part, words in ON if part in agent), "")
    return f"{browser} on {place}" if place else browser
