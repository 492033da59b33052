"""The app studio."""

from django.apps import AppConfig


class StudioConfig(AppConfig):
    name = "wembit.web.studio"
    label = "studio"
