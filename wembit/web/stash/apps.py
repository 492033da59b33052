"""The app stash."""

from django.apps import AppConfig


class StashConfig(AppConfig):
    name = "wembit.web.stash"
    label = "stash"
