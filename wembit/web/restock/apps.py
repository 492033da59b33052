"""The app restock."""

from django.apps import AppConfig


class RestockConfig(AppConfig):
    """What runs out, and orders."""

    name = "wembit.web.restock"
    label = "restock"
