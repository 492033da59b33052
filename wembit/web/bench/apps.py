"""The app bench: figures being made, piece by piece."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "wembit.web.bench"
    label = "bench"
