"""Sweep up pictures and tables that nothing names any more: ./start does it."""

from typing import Any

from django.core.management.base import BaseCommand

from wembit.web.studio.pictures_kept import sweep


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        if files := sweep():
            self.stdout.write(f"Swept up: {files} files that nothing names any more.")
