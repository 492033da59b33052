"""The app stash."""

from django.apps import AppConfig


class StashConfig(AppConfig):
    """The shelf and its ledger."""

    name = "wembit.web.stash"
    label = "stash"
