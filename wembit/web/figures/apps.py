"""The app figures."""

from django.apps import AppConfig


class FiguresConfig(AppConfig):
    """Figures, their versions and colourways."""

    name = "wembit.web.figures"
    label = "figures"
