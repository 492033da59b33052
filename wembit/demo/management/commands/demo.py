"""Load the demo studio where there is no studio yet; --anew throws everything away first."""

from typing import Any

from django.core.management.base import BaseCommand

from wembit.demo.loader import load, wipe
from wembit.web.studio.queries import any_studio


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--anew", action="store_true")

    def handle(self, *args: Any, anew: bool = False, **options: Any) -> None:
        if anew:
            wipe()
        if not any_studio():
            load()
