"""The app bench."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "wembit.web.bench"
    label = "bench"
