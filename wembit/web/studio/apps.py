"""The app studio."""

from django.apps import AppConfig


class StudioConfig(AppConfig):
    """Studios, their members and the door."""

    name = "wembit.web.studio"
    label = "studio"
