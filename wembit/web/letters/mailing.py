"""Mail goes out by Django's mail; without a server of one's own to the terminal."""

from __future__ import annotations

import smtplib

from django.conf import settings
from django.core.mail import EmailMessage

CONSOLE = "django.core.mail.backends.console.EmailBackend"


class NotSent(Exception):
    """The mail did not go out."""


def is_to_terminal() -> bool:
    """Whether mail is only written down where Wembit was started."""
    return bool(settings.EMAIL_BACKEND == CONSOLE)


def send(to: str, subject: str, text: str) -> None:
    """Raises `NotSent`."""
    try:
        EmailMessage(" ".join(subject.split()), text, settings.DEFAULT_FROM_EMAIL, [to]).send()
    except (OSError, smtplib.SMTPException) as fault:
        raise NotSent(str(fault)) from fault
