"""The app figures."""

from django.apps import AppConfig


class FiguresConfig(AppConfig):
    name = "wembit.web.figures"
    label = "figures"
