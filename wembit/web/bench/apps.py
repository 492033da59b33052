"""The app bench: figures being made, piece by piece."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    """Figures being made."""

    name = "wembit.web.bench"
    label = "bench"
