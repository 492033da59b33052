"""The app letters."""

from django.apps import AppConfig


class LettersConfig(AppConfig):
    """What the next fortnight asks for, by mail."""

    name = "wembit.web.letters"
    label = "letters"
