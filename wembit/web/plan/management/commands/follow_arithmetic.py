"""Work out anew what was planned by an older Wembit: ./start does it after the migrations."""

from typing import Any

from django.core.management.base import BaseCommand

from wembit.web.plan.actions.follow_arithmetic import follow_arithmetic


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        if projects := follow_arithmetic():
            self.stdout.write(f"Worked out anew by what Wembit knows now: the needs of {projects} planned projects.")
