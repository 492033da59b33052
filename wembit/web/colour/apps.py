"""The app colour."""

from django.apps import AppConfig


class ColourConfig(AppConfig):
    name = "wembit.web.colour"
    label = "colour"
