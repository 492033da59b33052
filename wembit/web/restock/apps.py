"""The app restock."""

from django.apps import AppConfig


class RestockConfig(AppConfig):
    name = "wembit.web.restock"
    label = "restock"
