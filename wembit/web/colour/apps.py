"""The app colour."""

from django.apps import AppConfig


class ColourConfig(AppConfig):
    """The colour map and what answers a colour."""

    name = "wembit.web.colour"
    label = "colour"
